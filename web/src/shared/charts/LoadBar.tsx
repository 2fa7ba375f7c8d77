import { useTranslation } from "react-i18next";
import { sets } from "../format";
import { Read } from "./Read";

interface Props {
  value: number;
  /** The line it is held against. */
  mark: number;
  /** The value at the right end. */
  most: number;
  /** The line must be reached, not kept under. */
  least?: boolean;
  width: number;
  height: number;
}

/** A sum against one line: what it must reach, or must not go over. */
export function LoadBar({ value, mark, most, least = false, width, height }: Props) {
  const { t } = useTranslation();
  const x = (sum: number) => (Math.min(sum, most) / most) * (width - 2);
  const wrong = least ? value < mark - 1e-9 : value > mark + 1e-9;
  const says = t(least ? "charts.least" : "charts.most", { value: sets(value), mark: sets(mark) });
  return (
    <Read says={says} alone>
      <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
        <path d={`M0 ${height / 2}H${width - 2}`} stroke="var(--hairline)" />
        <rect
          x={0}
          y={height / 2 - 3}
          width={x(value)}
          height={6}
          fill={wrong ? "var(--behind)" : "var(--muted)"}
        />
        {mark > 0 && <path d={`M${x(mark)} 2V${height - 2}`} stroke="var(--ink)" strokeWidth="1.4" />}
      </svg>
    </Read>
  );
}
