import { useTranslation } from "react-i18next";
import { held } from "../bench";
import styles from "./MovementBench.module.css";
import { RangeCurve } from "./RangeCurve";

interface Props {
  torque_nm: Record<string, number[]>;
  /** Of the set-up beside it. */
  beside?: Record<string, number[]>;
  /** Where in the range the figure is, 0 to 1. */
  at: number;
}

/** What the joints hold against the load along the range. */
export function JointsHeld({ torque_nm, beside, at }: Props) {
  const { t } = useTranslation();
  const joints = held(torque_nm);
  if (joints.length === 0) return null;
  const others = new Map(held(beside ?? {}).map((one) => [one.joint, one]));
  const most = Math.max(...joints.map(({ peak }) => peak), ...[...others.values()].map(({ peak }) => peak));
  return (
    <>
      <h3 className={styles.head}>{t("library.bench.joints")}</h3>
      <ul className={styles.heads}>
        {joints.map(({ joint, nm, peak, at: where }) => {
          const other = others.get(joint);
          const says = t("library.bench.peak", { nm: Math.round(peak), percent: Math.round(100 * where) });
          return (
            <li key={joint} className={styles.joint}>
              <span>{t(`library.bench.joint.${joint}`)}</span>
              <RangeCurve values={nm} beside={other?.nm} most={most} at={at} says={says} />
              <span className={styles.says}>
                {says}
                {other && (
                  <span className={styles.other}>
                    {" "}
                    {t("library.bench.other", { nm: Math.round(other.peak) })}
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
