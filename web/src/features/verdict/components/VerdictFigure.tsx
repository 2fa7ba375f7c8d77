import { memo } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { BodyFigure, type Shade } from "../../../shared/figure";
import { standingTone } from "../../../shared/ui/standing";
import { type Assessment, standing } from "../model";

interface Props {
  assessment: Assessment;
  picked?: string;
  onPick: (region: string) => void;
}

/** An estimate this far from level has its full colour, SD. */
const FULL_SD = 2;

/**
 * The plumb chart's numbers on the figure: plum behind, pine ahead, the stronger the further; hatched where unclear. Where
 * one side is smaller beyond doubt its outline has its side's colour.
 */
export const VerdictFigure = memo(function VerdictFigure({ assessment, picked, onPick }: Props) {
  const { t } = useTranslation();
  const byRegion = new Map(assessment.regions.map((entry) => [entry.region, entry]));
  const shade = (region: string, side: Schemas["Side"]): Shade | undefined => {
    const entry = byRegion.get(region);
    if (!entry) return undefined;
    const verdict = standing(entry);
    const smaller = entry.asymmetry?.verdict === `${side}-smaller`;
    const line = smaller ? `var(--${side})` : undefined;
    if (verdict === "unclear") return { fill: "var(--level)", hatched: true, line };
    if (verdict === "level") return { fill: "var(--level)", opacity: 0.45, line };
    const far = Math.min(1, Math.abs(entry.bulk.mean) / FULL_SD);
    const { colour, hollow } = standingTone(verdict);
    return { fill: colour, opacity: hollow ? 0.25 : 0.35 + 0.6 * far, line };
  };
  return (
    <figure style={{ margin: "0 0 14px" }}>
      <BodyFigure
        label={t("verdict.figure")}
        words={{ front: t("figure.front"), back: t("figure.back"), left: "L", right: "R" }}
        shade={shade}
        picked={picked}
        onPick={onPick}
        width={356}
      />
      <figcaption className="quiet" style={{ fontSize: 13 }}>
        {t("verdict.figureLegend")}
      </figcaption>
    </figure>
  );
});
