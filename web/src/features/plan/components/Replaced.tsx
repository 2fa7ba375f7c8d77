import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { dayName } from "../../../shared/format";
import styles from "../pages/PlanPage.module.css";

interface Props {
  replaced: Schemas["ReplacedView"][];
  onSeen: () => void;
}

/** What of a week that was taken could not stay as it was, and why. */
export function Replaced({ replaced, onSeen }: Props) {
  const { t } = useTranslation();
  if (replaced.length === 0) return null;
  return (
    <section className={styles.note} aria-label={t("plan.replacedTitle")}>
      <strong>{t("plan.replacedTitle")}</strong>{" "}
      <button type="button" className="text-button" onClick={onSeen}>
        {t("plan.seen")}
      </button>
      <ul>
        {replaced.map(({ day, name, because, instead }) => (
          <li key={`${day} ${name}`}>
            {t(instead ? "plan.replacedBy" : "plan.leftOut", { day: dayName(day), name, because, instead })}
          </li>
        ))}
      </ul>
    </section>
  );
}
