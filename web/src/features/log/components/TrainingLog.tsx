import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { METRIC, OwnMeasures } from "../../../shared/format";
import { NewVersion, Title } from "../../../shared/ui";
import { keepPictures, useWaitingVersion } from "../offline";
import type { Source } from "../source";
import { useLog } from "../useLog";
import styles from "./Phone.module.css";
import { SessionRun } from "./SessionRun";
import { SyncMark, SyncNotes } from "./SyncLine";
import { WeekList } from "./WeekList";

/** The week on a phone, and the session that is open. */
export function TrainingLog({
  source,
  title,
  onLeave,
}: {
  source: Source;
  title: string;
  onLeave?: () => void;
}) {
  const { t } = useTranslation();
  const log = useLog(source);
  const takeVersion = useWaitingVersion();
  const [day, setDay] = useState<number>();
  const exercises = (log.week?.sessions ?? [])
    .flatMap(({ items }) => items.map(({ item }) => item.exercise))
    .join();
  useEffect(() => keepPictures(exercises.split(",").filter(Boolean)), [exercises]);
  const session = log.week?.sessions.find((one) => one.day === day);
  if (log.week && session)
    return (
      <OwnMeasures value={log.week.measures ?? METRIC}>
        <SessionRun key={day} week={log.week} session={session} log={log} onLeave={() => setDay(undefined)} />
      </OwnMeasures>
    );
  return (
    <main className={styles.screen}>
      <Title of={log.week?.client_name ?? title} />
      <div className={styles.top}>
        {onLeave && (
          <button type="button" className={styles.plain} onClick={onLeave} aria-label={t("log.leave")}>
            ‹
          </button>
        )}
        <h1>{log.week?.client_name ?? title}</h1>
        <SyncMark log={log} />
      </div>
      {takeVersion && <NewVersion onTake={takeVersion} />}
      <SyncNotes log={log} />
      {!log.week && !log.trouble && log.seenAt === undefined && <p className="quiet">{t("log.looking")}</p>}
      {log.week && <WeekList week={log.week} log={log} onOpen={(open) => setDay(open.day)} />}
    </main>
  );
}
