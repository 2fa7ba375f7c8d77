import { useTranslation } from "react-i18next";
import { percent as inPercent } from "../format";
import { Read } from "./Read";
import { LEAN_PCT, leanSpan, WHISKER } from "./scale";

/** Percent that are written as none. */
const NOTHING = 0.05;

interface Props {
  /** Left minus right, % of the mean. */
  percent: number;
  /** Standard error of that, %. */
  se: number;
  width: number;
  height: number;
  /** An estimate rather than a measurement: its band is drawn lighter and thinner. */
  faint?: boolean;
  /** Percent shown to either side. */
  reach?: number;
  /** Nothing around it takes the focus. */
  alone?: boolean;
}

/** The left-right form of the plumb line: a bar that leans to the larger side, against what error alone may give. */
export function LeanBar({ percent, se, width, height, faint = false, reach = LEAN_PCT, alone }: Props) {
  const { t } = useTranslation();
  const { from, at, to } = leanSpan(percent, se, width, reach);
  const centre = width / 2;
  const real = at < from || at > to;
  const colour = percent > 0 ? "var(--left)" : "var(--right)";
  const thickness = Math.min(8, height - 8);
  const says = t(
    Math.abs(percent) < NOTHING ? "charts.equal" : percent > 0 ? "charts.left" : "charts.right",
    {
      percent: inPercent(Math.abs(percent)),
      error: inPercent(WHISKER * se),
    },
  );
  return (
    <Read says={says} alone={alone}>
      <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
        <rect
          x={from}
          y={faint ? height / 2 - 3 : 2}
          width={Math.max(0, to - from)}
          height={faint ? 6 : height - 4}
          fill="var(--hairline)"
          opacity="0.75"
        />
        <path d={`M${centre} 0V${height}`} stroke="var(--ink)" strokeWidth="1" opacity="0.55" />
        <rect
          x={Math.min(centre, at)}
          y={(height - thickness) / 2}
          width={Math.abs(at - centre)}
          height={thickness}
          fill={real ? colour : "var(--level)"}
          opacity={real ? 1 : 0.7}
        />
      </svg>
    </Read>
  );
}
