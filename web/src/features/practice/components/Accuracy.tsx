import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { percent, sets } from "../../../shared/format";
import { Agreement } from "../../../shared/judging";
import { Section } from "../../../shared/ui";
import styles from "./Practice.module.css";

/** How often the words are right, and what each coach's ratings weigh. */
export function Accuracy({ accuracy }: { accuracy: Schemas["AccuracyView"] }) {
  const { t } = useTranslation();
  const { calibration, raters } = accuracy;
  const { tape, rated } = calibration;
  return (
    <Section title={t("practice.sure")}>
      <p>
        {t("practice.sureWords", {
          behind: sets(tape.behind_true_pct),
          behindRated: sets(rated.behind_true_pct),
          ahead: sets(tape.ahead_true_pct),
          aheadRated: sets(rated.ahead_true_pct),
        })}
      </p>
      <p>
        {t("practice.sureNobody", {
          tape: percent(calibration.called_behind_tape),
          rated: percent(calibration.called_behind_rated),
        })}
      </p>
      <p>
        {t("practice.sureChange", {
          girth: percent(calibration.girth_called_changed_pct),
          released: percent(calibration.released_pct),
        })}
      </p>
      <p className="quiet">{t("practice.sureHow", { clients: calibration.clients })}</p>
      <h3>{t("practice.raters")}</h3>
      {raters.map(({ name, agreement }) => (
        <div key={name} className={styles.rater}>
          <strong>{name}</strong>
          <Agreement agreement={agreement} />
        </div>
      ))}
    </Section>
  );
}
