import { useTranslation } from "react-i18next";
import { type Plan, sentence } from "../model";
import styles from "./CoachLine.module.css";

/** The week read as a coach would read it before signing, and what it does not have, by its real reason. */
export function CoachLine({ plan }: { plan: Plan }) {
  const { t } = useTranslation();
  const objections = plan.objections ?? [];
  const missing = (plan.movements ?? []).filter((row) => row.reason);
  return (
    <div className={styles.line}>
      {objections.length === 0 ? (
        <p>
          <svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true">
            <path d="M2 6.5l2.6 3L10 2.5" fill="none" stroke="var(--ahead)" strokeWidth="2" />
          </svg>{" "}
          {t(missing.length > 0 ? "plan.nothingElse" : "plan.nothingToObject")}
        </p>
      ) : (
        <details open>
          <summary>{t("plan.objections", { count: objections.length })}</summary>
          <ul>
            {objections.map(({ says }) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
        </details>
      )}
      {missing.length > 0 && (
        <details>
          <summary>
            {t("plan.without", {
              movements: missing.map((row) => t(`plan.movements.${row.movement}`)).join(", "),
            })}
          </summary>
          <ul>
            {missing.map(({ movement, reason, nearest }) => (
              <li key={movement}>
                {t(`plan.movements.${movement}`)}: {sentence(reason ?? "")} {nearest}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
