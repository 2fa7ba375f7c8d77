import { useTranslation } from "react-i18next";
import { sd, signed, tenths, useQuantities } from "../../../shared/format";
import type { Assessment } from "../model";
import styles from "./Notes.module.css";

/** What must be known before the chart is read: outside the reference, too little measured, what looks wrong. */
export function Notes({ assessment }: { assessment: Assessment }) {
  const { t } = useTranslation();
  const { said } = useQuantities();
  const { reference, warnings, flags, muscularity } = assessment;
  const distance = reference.mahalanobis2 ?? 0;
  return (
    <>
      {flags.map(({ says, refer }) => (
        <p key={says} className={styles.note} role={refer ? "alert" : undefined}>
          {refer && <strong>{t("verdict.refer")} </strong>}
          {says}
        </p>
      ))}
      {reference.missing.length > 0 && (
        <p className={styles.note}>{t("verdict.missing", { what: reference.missing.join(", ") })}</p>
      )}
      {muscularity && Math.abs(muscularity.mean) > 1.96 * muscularity.sd && (
        <p className="quiet">
          {t("verdict.muscularity", { mean: signed(muscularity.mean, sd), sd: sd(1.96 * muscularity.sd) })}
        </p>
      )}
      {reference.outside && (
        <p className={styles.note}>
          {t("verdict.outside", { n: reference.n, distance: tenths(distance), df: reference.df })}
        </p>
      )}
      {warnings.map(({ place, says }) => (
        <p key={place} className={styles.note}>
          {place}: {said(says)}.
        </p>
      ))}
    </>
  );
}
