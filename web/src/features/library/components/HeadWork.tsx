import { useTranslation } from "react-i18next";
import { hundredths } from "../../../shared/format";
import { byCoaches, byMechanics, type Work } from "../bench";
import styles from "./MovementBench.module.css";
import { RangeCurve } from "./RangeCurve";

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
      <RangeCurve
        values={activation}
        beside={beside?.activation}
        long={length.map((one) => Math.max(0, (one - SHORT) / (LONG - SHORT)))}
        most={1}
        at={at}
        says={says}
      />
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
