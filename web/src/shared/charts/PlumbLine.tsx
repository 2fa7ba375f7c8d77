import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";
import { sd as inSd, signed } from "../format";
import { standingTone } from "../ui/standing";
import { Read } from "./Read";
import { plumbSpan, WHISKER } from "./scale";

interface Props {
  mean: number;
  /** 0 for a measured value, which has no whisker. */
  sd: number;
  standing: Schemas["Standing"];
  width: number;
  height: number;
  /** A part of the body or a girth is a diamond, a region a disc. */
  shape?: "disc" | "diamond";
  /** Nothing around it takes the focus. */
  alone?: boolean;
}

/** One row's piece of the plumb line: a mark that hangs from it and how sure it is. Rows stacked make the whole line. */
export function PlumbLine({ mean, sd, standing, width, height, shape = "disc", alone }: Props) {
  const { t } = useTranslation();
  const { from, at, to } = plumbSpan(mean, sd, width);
  const y = height / 2;
  const { colour, hollow, dashed } = standingTone(standing);
  const dash = dashed ? "3 2.5" : undefined;
  const says = t(sd > 0 ? "charts.plumb" : "charts.measured", {
    mean: signed(mean, inSd),
    error: inSd(WHISKER * sd),
  });
  return (
    <Read says={says} alone={alone}>
      <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
        <path d={`M${width / 2} 0V${height}`} stroke="var(--ink)" strokeWidth="1" opacity="0.55" />
        {sd > 0 && (
          <path
            d={`M${from} ${y}H${to}`}
            stroke={colour}
            strokeWidth={hollow ? 1.4 : 2}
            strokeDasharray={dash}
          />
        )}
        {shape === "disc" ? (
          <circle
            cx={at}
            cy={y}
            r="4.2"
            fill={hollow ? "var(--ground)" : colour}
            stroke={colour}
            strokeWidth="1.6"
          />
        ) : (
          <path
            d={`M${at - 6} ${y}L${at} ${y - 6}L${at + 6} ${y}L${at} ${y + 6}z`}
            fill={hollow ? "var(--ground)" : colour}
            stroke={colour}
            strokeWidth={hollow ? 1.6 : 0}
          />
        )}
      </svg>
    </Read>
  );
}
