import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { dayName, useQuantities } from "../../../shared/format";
import { Section } from "../../../shared/ui";
import { useAwake } from "../../../shared/ui/useAwake";
import { useLatest } from "../latest";
import {
  afterSet,
  type EntryView,
  type ExercisePart,
  groupMark,
  isDone,
  isStopped,
  type Row,
  rowsOf,
  type Session,
  type SessionPart,
  setAt as setAtRow,
  setsText,
  versions,
  type Week,
} from "../model";
import type { Log } from "../useLog";
import { useRest } from "../useRest";
import { Choices } from "./Choices";
import { ExercisePage } from "./ExercisePage";
import styles from "./Phone.module.css";
import { RestBar } from "./RestBar";
import { SideBySide } from "./SideBySide";
import { SyncMark, SyncNotes } from "./SyncLine";
import { Moves, WarmUp } from "./WarmUp";

interface Props {
  week: Week;
  session: Session;
  log: Log;
  onLeave: () => void;
}

const SCALE = [1, 2, 3, 4, 5];

/** Writes parts of a session, each upon what was written of it before. */
function useWriting(
  log: Props["log"],
  place: { plan: string; week: number; day: number },
  own: (part: string, known: EntryView[]) => EntryView[],
  whole: EntryView[],
) {
  const latest = useLatest<ExercisePart | SessionPart>();
  const write = (part: ExercisePart | SessionPart, follows: string[]) => {
    const id = log.write(place, part, follows);
    latest.wrote(part.kind === "exercise" ? part.exercise : "", id, part);
  };
  const writeWhole = (change: Partial<SessionPart>) => {
    // A line and the end of the session come within one tap: the second builds on the first.
    const now = latest.of("", whole);
    const before = now.part?.kind === "session" ? now.part : undefined;
    write({ kind: "session", finished: false, ...before, ...change }, now.follows);
  };
  const currentOf = (exercise: string, known: EntryView[]) => {
    const now = latest.of(exercise, own(exercise, known));
    return { part: now.part?.kind === "exercise" ? now.part : undefined, follows: now.follows };
  };
  return { write, writeWhole, currentOf };
}

/** A session, one exercise a screen: how it is today, the exercises, the end. */
export function SessionRun({ week, session, log, onLeave }: Props) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const rest = useRest();
  useAwake();
  const place = { plan: week.plan?.id ?? "", week: session.week, day: session.day };
  const own = (part: string, known: EntryView[]) => versions(known, log.local, place, part);
  const parts = session.items.map((item) => {
    const entry = own(item.item.exercise, item.entries)[0]?.entry;
    return entry?.part.kind === "exercise" ? entry.part : undefined;
  });
  const whole = own("", session.entries);
  const wholePart = whole[0]?.entry.part.kind === "session" ? whole[0].entry.part : undefined;
  const lighter = wholePart?.lighter ?? false;
  const begun = parts.some(Boolean) || wholePart;
  const firstOpen = session.items.findIndex((item, index) => !isDone(item, parts[index], lighter));
  const [at, setAt] = useState(begun ? (firstOpen < 0 ? session.items.length : firstOpen) : -1);
  const { write, writeWhole, currentOf } = useWriting(log, place, own, whole);
  const afterwards = (row: Row) => {
    const isLogged = (card: number, next: Row) => {
      const of = session.items[card];
      if (!of) return true;
      const part = currentOf(of.item.exercise, of.entries).part;
      const planned = rowsOf(of, lighter).some((one) => one.number === next.number && one.side === next.side);
      return !planned || (part !== undefined && (isStopped(part) || setAtRow(part.sets, next) !== undefined));
    };
    const next = afterSet(session, at, row, isLogged);
    if (next.rest_s > 0) rest.start(next.rest_s);
    if (next.card !== undefined && next.card !== at) setAt(next.card);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: each exercise is read from its top
  useEffect(() => {
    window.scrollTo?.(0, 0);
  }, [at]);
  const item = session.items[at];
  const last = session.items.length;
  return (
    <main className={styles.screen}>
      <div className={styles.top}>
        <button type="button" className={styles.plain} onClick={onLeave} aria-label={t("log.leave")}>
          ‹
        </button>
        <h1>
          {dayName(session.day)}
          {session.lighter && ` · ${t("log.lighter")}`}
        </h1>
        <SyncMark log={log} />
      </div>
      <ol className={styles.ticks} aria-label={t("log.progress")}>
        {session.items.map((one, index) => (
          <li key={one.item.exercise}>
            <button
              type="button"
              aria-label={one.item.name}
              aria-current={index === at}
              onClick={() => setAt(index)}
            >
              <span
                data-state={
                  index === at
                    ? "here"
                    : stoppedAt(parts[index])
                      ? "stopped"
                      : isDone(one, parts[index], lighter)
                        ? "done"
                        : "open"
                }
              />
            </button>
          </li>
        ))}
      </ol>
      <SyncNotes log={log} />
      {at < 0 && <Before session={session} when={week.lighter_today} part={wholePart} onTell={writeWhole} />}
      {item && (
        <ExercisePage
          key={item.item.exercise}
          item={item}
          versions={own(item.item.exercise, item.entries)}
          areas={week.areas}
          mark={groupMark(session, at)}
          lighter={lighter}
          current={() => currentOf(item.item.exercise, item.entries)}
          onWrite={write}
          onSet={afterwards}
        />
      )}
      {at >= last && (
        <Section title={wholePart?.finished ? t("log.finished") : t("log.end")} headClass={styles.name}>
          {whole.length > 1 && (
            <SideBySide
              of={t("log.wholeSession")}
              versions={whole}
              onChoose={({ entry }) =>
                entry.part.kind === "session" &&
                write(
                  entry.part,
                  whole.map(({ entry }) => entry.id),
                )
              }
            />
          )}
          <ul className={styles.list}>
            {session.items.map((one, index) => (
              <li key={one.item.exercise}>
                {one.item.name}: {setsText(mass, parts[index]?.sets ?? []) || t("log.nothingDone")}
              </li>
            ))}
          </ul>
          <label>
            <span className={styles.unit}>{t("log.note")}</span>
            <textarea
              rows={3}
              maxLength={500}
              defaultValue={wholePart?.note ?? ""}
              style={{ width: "100%", font: "inherit", boxSizing: "border-box" }}
              onBlur={(event) => {
                const note = event.target.value.trim() || undefined;
                if (note !== (wholePart?.note ?? undefined)) writeWhole({ note });
              }}
            />
          </label>
          <Moves title={t("warmUp.after")} moves={session.warm_up.restoring ?? []} times={1} />
          {!wholePart?.finished && (
            <button type="button" className={styles.big} onClick={() => writeWhole({ finished: true })}>
              {t("log.finish")}
            </button>
          )}
        </Section>
      )}
      <div className={styles.foot}>
        <div>
          <button type="button" className={styles.plain} disabled={at < 0} onClick={() => setAt(at - 1)}>
            {t("log.back")}
          </button>
          <RestBar rest={rest} />
          {rest.left_s === undefined && <span style={{ flex: 1 }} />}
          <button type="button" className={styles.plain} disabled={at >= last} onClick={() => setAt(at + 1)}>
            {at < 0 ? t("log.begin") : at === last - 1 ? t("log.toEnd") : t("log.next")}
          </button>
        </div>
      </div>
    </main>
  );
}

const stoppedAt = (part: ExercisePart | undefined) => part !== undefined && isStopped(part);

interface BeforeProps {
  session: Session;
  /** From when on a lighter session is offered. */
  when?: Week["lighter_today"];
  part?: SessionPart;
  onTell: (change: Partial<SessionPart>) => void;
}

/** How it is today, what is on, and the steps for what is not felt yet. */
function Before({ session, when, part, onTell }: BeforeProps) {
  const { t } = useTranslation();
  const tired =
    when !== undefined &&
    !session.lighter &&
    ((part?.sleep ?? 5) <= when.sleep_at_most || (part?.soreness ?? 1) >= when.soreness_at_least);
  return (
    <Section title={t("log.today", { count: session.items.length })} headClass={styles.name}>
      <p className="quiet">
        {t("plan.minutes", { minutes: Math.round(session.minutes) })}
        {session.home && ` · ${t("plan.atHome")}`}
      </p>
      {(["sleep", "soreness"] as const).map((what) => (
        <Choices
          key={what}
          label={t(`log.${what}`)}
          options={SCALE}
          text={String}
          picked={(value) => part?.[what] === value}
          onPick={(value) => onTell({ [what]: value })}
        />
      ))}
      {(tired || part?.lighter) && (
        <div className={styles.notice}>
          <p>{part?.lighter ? t("log.isLighter") : t("log.tired")}</p>
          <button
            type="button"
            className={styles.quietBig}
            onClick={() => onTell({ lighter: !part?.lighter })}
          >
            {part?.lighter ? t("log.asPlanned") : t("log.makeLighter")}
          </button>
        </div>
      )}
      <WarmUp warmUp={session.warm_up} times={tired ? (when?.warm_up_times ?? 1) : 1} />
      {session.ladders.map((ladder) => (
        <div key={ladder.region} className={styles.notice}>
          <p>{ladder.why}</p>
          <ol className={styles.list}>
            {ladder.rungs.map((rung) => (
              <li key={rung.exercise}>
                {rung.name}: {rung.how}
              </li>
            ))}
          </ol>
        </div>
      ))}
      <ol className={styles.list}>
        {session.items.map(({ item }, index) => (
          <li key={item.exercise}>
            {groupMark(session, index) && <strong>{groupMark(session, index)} </strong>}
            {item.name}
          </li>
        ))}
      </ol>
    </Section>
  );
}
