import { curve } from "../bench";
import styles from "./MovementBench.module.css";

interface Props {
  /** Along the range, from start to end. */
  values: number[];
  /** The same in the set-up beside it. */
  beside?: number[];
  /** How long the fibres are, dashed. */
  long?: number[];
  /** What fills its height. */
  most: number;
  /** Where in the range the figure is, 0 to 1. */
  at: number;
  /** What it says in words. */
  says: string;
}

const [WIDE, HIGH] = [96, 26];

/** Something along the range of a movement, beside the same in another set-up. */
export function RangeCurve({ values, beside, long, most, at, says }: Props) {
  const line = (of: number[], up = most) => curve(of, WIDE, HIGH, up);
  return (
    <svg className={styles.curve} viewBox={`0 -1 ${WIDE} ${HIGH + 2}`} role="img" aria-label={says}>
      <title>{says}</title>
      <path d={`M0 ${HIGH}H${WIDE}`} stroke="var(--hairline)" />
      <path d={`M${at * WIDE} 0V${HIGH}`} stroke="var(--accent)" strokeWidth="1" />
      {long && <polyline points={line(long, 1)} fill="none" stroke="var(--muted)" strokeDasharray="2 2" />}
      {beside && <polyline points={line(beside)} fill="none" stroke="var(--ahead)" />}
      <polyline points={line(values)} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
    </svg>
  );
}
