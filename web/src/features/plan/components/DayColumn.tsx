import { useDroppable } from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { Select } from "antd";
import { type ReactNode, useMemo, useState } from "react";
import { useTranslation } from "react-i18next";
import { type Atlas, useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { dayName } from "../../../shared/format";
import type { Week } from "../model";
import styles from "./DayColumn.module.css";

interface Props {
  week: Week;
  session: number;
  /** What the planner says of the day. */
  planned?: Schemas["SessionEntry"];
  broken: string[];
  atlas: Atlas;
  editable: boolean;
  onDay: (day: number) => void;
  onAdd: (exercise: string) => void;
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
  const taken = week.sessions.map((other) => other.day);
  return (
    <section className={styles.session} aria-label={`${t("plan.day", { number: session + 1 })}, ${weekday}`}>
      <header className={styles.head}>
        <h2>
          {editable ? (
            <Select
              variant="borderless"
              size="small"
              className={styles.weekday}
              aria-label={t("plan.weekday", { number: session + 1 })}
              value={day.day}
              onChange={onDay}
              popupMatchSelectWidth={false}
              options={[1, 2, 3, 4, 5, 6, 7].map((one) => ({
                value: one,
                label: dayName(one),
                disabled: one !== day.day && taken.includes(one),
              }))}
            />
          ) : (
            weekday
          )}
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
      {broken.map((says) => (
        <p key={says} className={styles.broken}>
          {says}
        </p>
      ))}
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
      {editable && <AddCard week={week} session={session} atlas={atlas} onAdd={onAdd} />}
    </section>
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

function AddCard({
  week,
  session,
  atlas,
  onAdd,
}: {
  week: Week;
  session: number;
  atlas: Atlas;
  onAdd: (exercise: string) => void;
}) {
  const { t } = useTranslation();
  const names = useNames();
  const [value, setValue] = useState<string>();
  const items = week.sessions[session]?.items;
  // A hundred and more options: the list is made anew only when the day has other exercises.
  const options = useMemo(() => {
    const free = atlas.exercises.filter(({ id }) => items?.every((card) => card.exercise !== id));
    return free.map(({ id }) => ({ value: id, label: names.exercise(id) }));
  }, [atlas, names, items]);
  return (
    <Select
      showSearch
      variant="borderless"
      size="small"
      className={styles.add}
      aria-label={t("plan.addTo", { day: dayName(week.sessions[session]?.day ?? 1) })}
      placeholder={t("plan.add")}
      value={value}
      popupMatchSelectWidth={false}
      onChange={(exercise) => {
        setValue(undefined);
        onAdd(exercise);
      }}
      optionFilterProp="label"
      options={options}
    />
  );
}

/** A card that can be dragged by its handle. */
export function Draggable({ id, children }: { id: string; children: (handle: ReactNode) => ReactNode }) {
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
      style={{
        transform: transform ? `translate3d(${transform.x}px, ${transform.y}px, 0)` : undefined,
        transition,
        opacity: isDragging ? 0.35 : 1,
      }}
    >
      {children(handle)}
    </li>
  );
}
