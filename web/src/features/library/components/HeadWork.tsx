import { useTranslation } from "react-i18next";
import { hundredths } from "../../../shared/format";
import { byCoaches, byMechanics, curve, type Work } from "../bench";
import styles from "./MovementBench.module.css";

interface Props {
  work: Work;
  /** The same head in the set-up beside it. */
  beside?: Work;
  largest: number;
  name: string;
  /** Where in the range the figure is, 0 to 1. */
  at: number;
  picked: boolean;
  onPick: () => void;
}

const [WIDE, HIGH] = [96, 26];
/** Fibres are drawn from half to one and a half of their best length. */
const [SHORT, LONG] = [0.5, 1.5];

/** What a head does along a movement: its mean use as a bar, its curve, and both voices where they differ. */
export function HeadWork({ work, beside, largest, name, at, picked, onPick }: Props) {
  const { t } = useTranslation();
  const { share, bites, long_load, activation, length, catalogue, agrees } = work;
  const coaches = byCoaches(catalogue?.fraction ?? 0);
  const mechanics = byMechanics(share, largest);
  const says = [
    t(`library.bench.bites.${bites as "L" | "M" | "S" | "E"}`),
    long_load > 0.02 &&
      t("library.bench.longLoad", { percent: Math.round((100 * long_load) / Math.max(share, 0.01)) }),
  ]
    .filter(Boolean)
    .join(", ");
  const long = length.map((one) => (one - SHORT) / (LONG - SHORT));
  return (
    <li className={styles.line} data-picked={picked || undefined}>
      <button type="button" className={styles.name} aria-pressed={picked} onClick={onPick}>
        {name.replace(/ \(.*\)$/, "")}
      </button>
      <span className={styles.bar} role="img" aria-label={`${name}: ${hundredths(share)}`}>
        <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
          <rect width="100" height="10" fill="var(--sunken)" />
          <rect
            width={100 * Math.min(share, 1)}
            height="10"
            fill={picked ? "var(--behind)" : "var(--level)"}
          />
          {beside && <rect y="7" width={100 * Math.min(beside.share, 1)} height="3" fill="var(--ahead)" />}
        </svg>
      </span>
      <span className={styles.share}>
        {hundredths(share)}
        {beside && <span className={styles.other}> {hundredths(beside.share)}</span>}
      </span>
      <svg className={styles.curve} viewBox={`0 -1 ${WIDE} ${HIGH + 2}`} role="img" aria-label={says}>
        <title>{says}</title>
        <path d={`M0 ${HIGH}H${WIDE}`} stroke="var(--hairline)" />
        <path d={`M${at * WIDE} 0V${HIGH}`} stroke="var(--accent)" strokeWidth="1" />
        <polyline
          points={curve(
            long.map((one) => Math.max(0, one)),
            WIDE,
            HIGH,
            1,
          )}
          fill="none"
          stroke="var(--muted)"
          strokeDasharray="2 2"
        />
        {beside && (
          <polyline points={curve(beside.activation, WIDE, HIGH, 1)} fill="none" stroke="var(--ahead)" />
        )}
        <polyline
          points={curve(activation, WIDE, HIGH, 1)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.8"
        />
      </svg>
      <span className={styles.says}>
        {says}
        {agrees === false && coaches !== mechanics && (
          <em>
            {" "}
            {t("library.bench.voices", {
              coaches: t(`library.bench.weight.${coaches}`),
              mechanics: t(`library.bench.weight.${mechanics}`),
            })}
          </em>
        )}
      </span>
    </li>
  );
}
