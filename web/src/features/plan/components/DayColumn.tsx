import { useDroppable } from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { Select } from "antd";
import { memo, type ReactNode, useMemo, useState } from "react";
import { useTranslation } from "react-i18next";
import { type Atlas, useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { dayName } from "../../../shared/format";
import { useAddable } from "../api";
import type { Week } from "../model";
import styles from "./DayColumn.module.css";

interface Props {
  week: Week;
  session: number;
  /** What the planner says of the day. */
  planned?: Schemas["SessionEntry"];
  broken: string[];
  atlas: Atlas;
  roundId: string;
  editable: boolean;
  /** Neither changes from one drawing to the next. */
  onDay: (session: number, day: number) => void;
  onAdd: (session: number, exercise: string) => void;
  children: ReactNode;
}

export const cardKey = (session: number, exercise: string) => `${session} ${exercise}`;

/** One day: how full it is, its cards in order, and a place to add one. */
export function DayColumn({
  week,
  session,
  planned,
  broken,
  atlas,
  roundId,
  editable,
  onDay,
  onAdd,
  children,
}: Props) {
  const { t } = useTranslation();
  const day = week.sessions[session];
  const { setNodeRef, isOver } = useDroppable({ id: `day ${session}` });
  if (!day) return null;
  const minutes = planned?.minutes ?? 0;
  const weekday = dayName(day.day);
  const late = minutes > week.minutes + 1e-9;
  const taken = week.sessions.map((other) => other.day).join(" ");
  return (
    <section className={styles.session} aria-label={`${t("plan.day", { number: session + 1 })}, ${weekday}`}>
      <header className={styles.head}>
        <h2>
          {editable ? <Weekday session={session} day={day.day} taken={taken} onDay={onDay} /> : weekday}
          {day.home && <span className="quiet"> · {t("plan.atHome")}</span>}
        </h2>
        <span className={late ? styles.late : "quiet"}>
          {t("plan.filled", { used: Math.round(minutes), minutes: week.minutes })}
        </span>
      </header>
      <svg className={styles.fill} viewBox="0 0 100 2" preserveAspectRatio="none" aria-hidden="true">
        <rect width="100" height="2" fill="var(--hairline)" />
        <rect
          width={Math.min(100, (100 * minutes) / week.minutes)}
          height="2"
          fill={late ? "var(--behind)" : "var(--ink)"}
        />
      </svg>
      {planned?.theme && <p className={styles.short}>{t("plan.theme", { theme: planned.theme })}</p>}
      {planned?.short_because && (
        <p className={styles.short}>{t("plan.short", { why: planned.short_because })}</p>
      )}
      {broken.map((says) => (
        <p key={says} className={styles.broken}>
          {says}
        </p>
      ))}
      {planned?.warm_up && <WarmUpLines warmUp={planned.warm_up} />}
      {planned?.ladders?.map((ladder) => (
        <Ladder key={ladder.region} ladder={ladder} />
      ))}
      <SortableContext
        items={day.items.map((card) => cardKey(session, card.exercise))}
        strategy={verticalListSortingStrategy}
      >
        <ol ref={setNodeRef} className={styles.items} data-over={isOver || undefined}>
          {children}
        </ol>
      </SortableContext>
      {editable && <AddCard session={session} day={day} atlas={atlas} roundId={roundId} onAdd={onAdd} />}
    </section>
  );
}

/** What comes before and after the work, each in a line that opens to why. */
function WarmUpLines({ warmUp }: { warmUp: Schemas["WarmUpEntry"] }) {
  const { t } = useTranslation();
  const { moves = [], activation, restoring = [] } = warmUp;
  const names = moves.map(({ name }) => name.toLowerCase());
  if (names.length + restoring.length === 0 && !activation) return null;
  return (
    <details className={styles.warmUp}>
      <summary>{t("warmUp.short", { names: names.join(", ") })}</summary>
      <ul>
        {[...moves, ...restoring].map((move) => (
          <li key={move.id}>
            {move.name} {move.reps != null ? `× ${move.reps}` : `${move.seconds} s`}: {move.why}
          </li>
        ))}
        {activation && (
          <li>
            {t("warmUp.light", { sets: activation.sets, reps: activation.reps, name: activation.name })}
          </li>
        )}
      </ul>
    </details>
  );
}

function Ladder({ ladder }: { ladder: Schemas["LadderEntry"] }) {
  const { t } = useTranslation();
  return (
    <details className={styles.ladder}>
      <summary>{t("plan.ladder", { count: ladder.rungs.length })}</summary>
      <p>{ladder.why}</p>
      <ol>
        {ladder.rungs.map((rung) => (
          <li key={rung.exercise}>
            {rung.name}: {rung.how}
          </li>
        ))}
      </ol>
    </details>
  );
}

interface WeekdayProps {
  session: number;
  day: number;
  /** Weekdays of all sessions, one after another. */
  taken: string;
  onDay: Props["onDay"];
}

/** The weekday of a session; one that another session has is not offered. Drawn anew only when a weekday changes. */
const Weekday = memo(function Weekday({ session, day, taken, onDay }: WeekdayProps) {
  const { t } = useTranslation();
  return (
    <Select
      variant="borderless"
      size="small"
      className={styles.weekday}
      aria-label={t("plan.weekday", { number: session + 1 })}
      value={day}
      onChange={(other) => onDay(session, other)}
      popupMatchSelectWidth={false}
      options={[1, 2, 3, 4, 5, 6, 7].map((one) => ({
        value: one,
        label: dayName(one),
        disabled: one !== day && taken.includes(String(one)),
      }))}
    />
  );
});

interface AddProps {
  session: number;
  day: Week["sessions"][number];
  atlas: Atlas;
  roundId: string;
  onAdd: Props["onAdd"];
}

/** A place to add a card; drawn anew only when its day changes. */
const AddCard = memo(function AddCard({ session, day, atlas, roundId, onAdd }: AddProps) {
  const { t } = useTranslation();
  const names = useNames();
  const [value, setValue] = useState<string>();
  const { items } = day;
  const [looking, setLooking] = useState(false);
  const addable = useAddable(roundId, looking);
  // A hundred and more options: the list is made anew only when the day has other exercises.
  const options = useMemo(() => {
    const free = atlas.exercises.filter(({ id }) => items.every((card) => card.exercise !== id));
    const because = new Map(addable.data?.refused.map((one) => [one.exercise, one.because]));
    return free.map(({ id, targets, movement }) => {
      const why = because.get(id);
      const name = names.exercise(id);
      const regions = Object.keys(targets).filter((region) => (targets[region] ?? 0) >= 1);
      // Found by what it is called, what it trains and how it moves.
      const words = [name, ...regions.map(names.region), t(`plan.movements.${movement ?? "isolation"}`)];
      return {
        value: id,
        label: why ? `${name} (${why})` : name,
        words: words.join(" ").toLowerCase(),
        disabled: why !== undefined,
      };
    });
  }, [atlas, names, items, addable.data, t]);
  return (
    <Select
      showSearch
      variant="borderless"
      size="small"
      className={styles.add}
      aria-label={t("plan.addTo", { day: dayName(day.day) })}
      placeholder={t("plan.add")}
      value={value}
      popupMatchSelectWidth={false}
      onChange={(exercise) => {
        setValue(undefined);
        onAdd(session, exercise);
      }}
      onOpenChange={setLooking}
      filterOption={(typed, option) =>
        typed
          .toLowerCase()
          .split(" ")
          .every((word) => option?.words.includes(word))
      }
      options={options}
    />
  );
});

/** Before the key of a card onto which another is dropped to be done in turns with it. */
export const JOIN = "join ";

/** Where a card is dropped to be done in turns with this one; there only while one is dragged. */
function JoinZone({ id }: { id: string }) {
  const { t } = useTranslation();
  const { setNodeRef, isOver } = useDroppable({ id: `${JOIN}${id}` });
  return (
    <span ref={setNodeRef} className={styles.join} data-over={isOver || undefined}>
      {t("card.inTurns")}
    </span>
  );
}

interface DraggableProps {
  id: string;
  /** Another card is dragged and may be dropped onto this one. */
  joins?: boolean;
  children: (handle: ReactNode) => ReactNode;
}

/** A card that can be dragged by its handle. */
export function Draggable({ id, joins, children }: DraggableProps) {
  const { t } = useTranslation();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  const handle = (
    <button
      type="button"
      ref={setActivatorNodeRef}
      className={styles.handle}
      {...attributes}
      {...listeners}
      tabIndex={-1}
      aria-label={t("plan.drag")}
      title={t("plan.drag")}
    >
      <svg viewBox="0 0 8 12" width="8" height="12" aria-hidden="true">
        <path d="M1 2h6M1 6h6M1 10h6" stroke="currentColor" strokeWidth="1.4" />
      </svg>
    </button>
  );
  return (
    <li
      ref={setNodeRef}
      className={styles.card}
      style={{
        transform: transform ? `translate3d(${transform.x}px, ${transform.y}px, 0)` : undefined,
        transition,
        opacity: isDragging ? 0.35 : 1,
      }}
    >
      {children(handle)}
      {joins && <JoinZone id={id} />}
    </li>
  );
}
