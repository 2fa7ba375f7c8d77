import { lazy, Suspense, startTransition, useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { METRIC, OwnMeasures } from "../../../shared/format";
import { NewVersion, Title } from "../../../shared/ui";
import { keepPictures, useWaitingVersion } from "../offline";
import type { Source } from "../source";
import { useLog } from "../useLog";
import styles from "./Phone.module.css";
import { SyncMark, SyncNotes } from "./SyncLine";
import { WeekList } from "./WeekList";

const sessionRun = () => import("./SessionRun");
/** Not on the way to the week: it comes once that is there, and the worker keeps it. */
const SessionRun = lazy(async () => ({ default: (await sessionRun()).SessionRun }));

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
  const there = log.week !== undefined;
  useEffect(() => {
    // Without a line and without what the worker keeps there is no session; opening one tries again and says so.
    if (there) sessionRun().catch(() => undefined);
  }, [there]);
  const session = log.week?.sessions.find((one) => one.day === day);
  if (log.week && session)
    return (
      <OwnMeasures value={log.week.measures ?? METRIC}>
        <Suspense>
          <SessionRun
            key={day}
            week={log.week}
            session={session}
            log={log}
            onLeave={() => setDay(undefined)}
          />
        </Suspense>
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
      {log.week && (
        <WeekList week={log.week} log={log} onOpen={(open) => startTransition(() => setDay(open.day))} />
      )}
    </main>
  );
}
