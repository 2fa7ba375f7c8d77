import { useTranslation } from "react-i18next";
import { dayName, shortDay } from "../../../shared/format";
import { type Session, sameDay, type Week } from "../model";
import type { Log } from "../useLog";
import styles from "./Phone.module.css";

interface Props {
  week: Week;
  log: Log;
  onOpen: (session: Session) => void;
}

/** The sessions of this week, with how far each has come. */
export function WeekList({ week, log, onOpen }: Props) {
  const { t } = useTranslation();
  const stateOf = (session: Session) => {
    const place = { plan: week.plan?.id ?? "", week: session.week, day: session.day };
    const own = log.local.filter(({ entry }) => sameDay(entry, place)).map(({ entry }) => entry.part);
    if (own.some((part) => part.kind === "session" && part.finished)) return "finished";
    return own.length > 0 && session.state !== "finished" ? "begun" : session.state;
  };
  return (
    <>
      {week.plan && week.plan.week > 0 && (
        <p className="quiet" style={{ margin: "0 0 6px" }}>
          {week.plan.week > week.plan.weeks
            ? t("log.weekNumber", { week: week.plan.week })
            : t("log.weekOf", { week: week.plan.week, weeks: week.plan.weeks })}
          {week.sessions.some(({ lighter }) => lighter) && ` · ${t("log.lighter")}`}
        </p>
      )}
      {week.note && <p className={styles.notice}>{week.note}</p>}
      <ul className={styles.days}>
        {week.sessions.map((session) => {
          const state = stateOf(session);
          return (
            <li key={session.day}>
              <button type="button" className={styles.day} data-state={state} onClick={() => onOpen(session)}>
                <span>
                  <strong>{session.on === week.today ? t("log.todayIs") : dayName(session.day)}</strong>{" "}
                  <span className="quiet">{shortDay(session.on)}</span>
                  <br />
                  <span className="quiet">
                    {t("log.exercises", { count: session.items.length })} ·{" "}
                    {t("plan.minutes", { minutes: Math.round(session.minutes) })}
                    {session.home && ` · ${t("plan.atHome")}`}
                  </span>
                </span>
                <span>{t(`log.state.${state}`)}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
