import { useTranslation } from "react-i18next";
import { sets as inSets } from "../format";
import { Read } from "./Read";

interface Props {
  low: number;
  aim: number;
  high: number;
  direct: number;
  indirect: number;
  width: number;
  height: number;
  /** Sets at the right end. */
  most: number;
}

/** A region's weekly sets against its band: solid direct, light indirect; the tick is the aim. */
export function LedgerBar({ low, aim, high, direct, indirect, width, height, most }: Props) {
  const { t } = useTranslation();
  const x = (sets: number) => (Math.min(sets, most) / most) * (width - 2);
  const short = direct + indirect < low - 1e-9;
  const over = direct + indirect > high + 1e-9;
  const colour = short || over ? "var(--behind)" : "var(--ahead)";
  const numbers = { low, aim, high, direct, indirect };
  const said = Object.fromEntries(Object.entries(numbers).map(([name, count]) => [name, inSets(count)]));
  return (
    <Read says={t("charts.ledger", said)} alone>
      <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
        <rect
          x={x(low)}
          y={1}
          width={Math.max(1, x(high) - x(low))}
          height={height - 2}
          fill="var(--hairline)"
          opacity="0.7"
        />
        <rect x={0} y={height / 2 - 3} width={x(direct)} height={6} fill={colour} />
        <rect
          x={x(direct)}
          y={height / 2 - 3}
          width={Math.max(0, x(direct + indirect) - x(direct))}
          height={6}
          fill={colour}
          opacity="0.42"
        />
        <path d={`M${x(aim)} 1V${height - 1}`} stroke="var(--ink)" strokeWidth="1.4" />
      </svg>
    </Read>
  );
}
