import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { dayName } from "../../../shared/format";
import { ItemCard } from "./ItemCard";
import styles from "./SessionColumn.module.css";

interface Props {
  session: Schemas["SessionEntry"];
  number: number;
  minutes: number;
  opened?: string;
  onOpen: (key: string) => void;
}

/** One day: how full it is, and its exercises in order. */
export function SessionColumn({ session, number, minutes, opened, onOpen }: Props) {
  const { t } = useTranslation();
  const weekday = dayName(session.day);
  return (
    <section className={styles.session} aria-label={`${t("plan.day", { number })}, ${weekday}`}>
      <header className={styles.head}>
        <h2>
          {weekday}
          {session.home && <span className="quiet"> · {t("plan.atHome")}</span>}
        </h2>
        <span className="quiet">{t("plan.filled", { used: Math.round(session.minutes), minutes })}</span>
      </header>
      <svg className={styles.fill} viewBox="0 0 100 2" preserveAspectRatio="none" aria-hidden="true">
        <rect width="100" height="2" fill="var(--hairline)" />
        <rect width={Math.min(100, (100 * session.minutes) / minutes)} height="2" fill="var(--ink)" />
      </svg>
      <ol className={styles.items}>
        {session.items.map((item) => {
          const key = `${session.day} ${item.exercise}`;
          return <ItemCard key={key} item={item} open={opened === key} onToggle={() => onOpen(key)} />;
        })}
      </ol>
    </section>
  );
}
