import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { LeanBar } from "../../../shared/charts";
import { percent } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import styles from "./TapeSheet.module.css";

/** Left against right at a site: a bar that leans to the larger side, against error, and the verdict in words. */
export function SiteLean({ asymmetry }: { asymmetry?: Schemas["AsymmetryEntry"] }) {
  const { t } = useTranslation();
  if (!asymmetry) return <span />;
  const { symmetry_index, se_index, verdict, dominance_explains } = asymmetry;
  const larger = symmetry_index > 0 ? "left" : "right";
  const words = {
    "within-error": t("tape.withinError"),
    "real-small": t("tape.realSmall"),
    "real-act": t("tape.realAct"),
  }[verdict];
  return (
    <span className={styles.lean}>
      <LeanBar percent={symmetry_index} se={se_index} width={96} height={26} />
      <span>
        {verdict === "within-error" ? (
          <span className="quiet">{words}</span>
        ) : (
          <>
            <SideMark side={larger} /> +{percent(Math.abs(symmetry_index))} % {words}
            {dominance_explains && <span className="quiet"> · {t("tape.dominance")}</span>}
          </>
        )}
      </span>
    </span>
  );
}
