import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import type { TFunction } from "i18next";
import { memo, useEffect, useEffectEvent, useState } from "react";
import { useTranslation } from "react-i18next";
import { type Atlas, useNames } from "../../../shared/api/atlas";
import { dayName } from "../../../shared/format";
import { isTyping, useKeys } from "../../../shared/ui/keys";
import { useSteady } from "../../../shared/ui/steady";
import { groupMark, joinable, joined, parted, together, withPartners } from "../groups";
import {
  added,
  beside,
  brokenAt,
  cardAt,
  changed,
  itemAt,
  moved,
  onDay,
  type Plan,
  type Spot,
  spotOfKey,
  standing,
  type Week,
  without,
  withSets,
} from "../model";
import styles from "./Board.module.css";
import { cardKey, DayColumn, Draggable, JOIN } from "./DayColumn";
import { ItemCard } from "./ItemCard";

interface Props {
  week: Week;
  plan: Plan;
  atlas: Atlas;
  roundId: string;
  /** Regions to be brought up: what trains one opens its day. */
  chosen: string[];
  /** Week of the block that is shown, from 1. */
  number: number;
  onChange: (week: Week, tag?: string) => void;
  onSwap: (spot: Spot) => void;
  /** Opens what is written on cards. */
  onWrite: (keys: string[]) => void;
}

/** The days of the week as columns. Cards go by drag, or picked by j and k and moved by Alt and the arrows. */
export const Board = memo(function Board(props: Props) {
  const { week, plan, atlas, roundId, chosen, number, onChange, onSwap, onWrite } = props;
  const { t } = useTranslation();
  const names = useNames();
  const [opened, setOpened] = useState<string>();
  const [picks, setPicks] = useState<Spot[]>([]);
  const setPicked = (spot: Spot | undefined) => setPicks(spot ? [spot] : []);
  const [dragged, setDragged] = useState<string>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const editable = number === 1;
  const keysOf = (spots: Spot[]) =>
    spots.flatMap((spot) => {
      const card = cardAt(week, spot);
      return card ? [cardKey(spot.session, card.exercise)] : [];
    });
  const write = (spots: Spot[]) => onWrite(keysOf(spots));
  useBoardKeys({ week, picks, setPicks, onChange, onSwap, onWrite: write, onOpen: setOpened, editable });

  const changeDay = useSteady((session: number, day: number) => onChange(onDay(week, session, day)));
  const add = useSteady((session: number, exercise: string) => {
    const targets = atlas.exercises.find(({ id }) => id === exercise)?.targets ?? {};
    const opens = chosen.some((region) => (targets[region] ?? 0) >= 1);
    onChange(added(week, session, exercise, opens));
  });
  const spotOf = (id: string): Spot | undefined => {
    const [first, second] = id.split(" ") as [string, string];
    if (first === "day")
      return { session: Number(second), place: week.sessions[Number(second)]?.items.length ?? 0 };
    return spotOfKey(week, id);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(undefined);
    const from = spotOf(String(active.id));
    const [onto, target] = over ? [String(over.id).startsWith(JOIN), String(over.id).replace(JOIN, "")] : [];
    const to = target ? spotOf(target) : undefined;
    if (from && to) onChange(onto ? together(week, from, to) : moved(week, from, to));
  };
  const draggedAt = dragged ? spotOf(dragged) : undefined;
  const draggedCard = draggedAt && cardAt(week, draggedAt);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragEnd={drop}
      onDragCancel={() => setDragged(undefined)}
      accessibility={{ screenReaderInstructions: { draggable: t("plan.dragHow") } }}
    >
      <div
        className={styles.week}
        style={{ "--days": Math.min(week.sessions.length, 4) } as React.CSSProperties}
      >
        {week.sessions.map((day, session) => (
          <DayColumn
            key={day.day}
            week={week}
            session={session}
            planned={plan.sessions[session]}
            broken={dayRules(plan, day.day)}
            atlas={atlas}
            roundId={roundId}
            editable={editable}
            onDay={changeDay}
            onAdd={add}
          >
            {day.items.map((card, place) => {
              const spot = { session, place };
              const key = cardKey(session, card.exercise);
              const sets = plan.weeks[number - 1]?.sets[session]?.[place];
              const actions = editable
                ? {
                    sets: (by: number) => onChange(withSets(week, spot, by), `sets ${key}`),
                    lock: () => onChange(changed(week, spot, { locked: !card.locked })),
                    scheme: (id: string) =>
                      onChange(changed(week, spot, { scheme: id === "straight" ? undefined : id })),
                    write: () => write([spot]),
                    join: joinable(day.items, place) ? () => onChange(joined(week, spot)) : undefined,
                    part: card.group ? () => onChange(parted(week, spot)) : undefined,
                    partners: (exercises: string[]) => onChange(withPartners(week, spot, exercises)),
                    swap: () => onSwap(spot),
                    remove: () => onChange(without(week, spot)),
                  }
                : undefined;
              return (
                <Draggable key={key} id={key} joins={dragged !== undefined && dragged !== key}>
                  {(handle) => (
                    <ItemCard
                      {...standing(card, itemAt(plan, week, spot), plan.weeks[number - 1])}
                      atlas={atlas}
                      setsShown={editable ? card.sets : (sets ?? card.sets)}
                      broken={editable ? brokenAt(plan, session, card.exercise) : []}
                      open={opened === key}
                      mark={groupMark(day.items, place)}
                      picked={picks.some((one) => one.session === session && one.place === place)}
                      onToggle={(more) => {
                        if (more) {
                          setPicks(toggled(picks, spot));
                          return;
                        }
                        setOpened(opened === key ? undefined : key);
                        setPicked(spot);
                      }}
                      actions={actions}
                      handle={editable && handle}
                    />
                  )}
                </Draggable>
              );
            })}
          </DayColumn>
        ))}
      </div>
      <p className="sr-only" role="status">
        {picks.length === 1 && pickedSays(week, picks[0], names.exercise, t)}
      </p>
      {picks.length > 1 && (
        <p className={styles.picks} role="status">
          {t("card.picked", { count: picks.length })}{" "}
          <button type="button" className="text-button" onClick={() => write(picks)}>
            {t("card.writeAll")}
          </button>
        </p>
      )}
      <DragOverlay dropAnimation={null}>
        {draggedCard && <div className={styles.dragged}>{names.exercise(draggedCard.exercise)}</div>}
      </DragOverlay>
    </DndContext>
  );
});

/** Which card is picked, for whoever does not see it framed. */
function pickedSays(week: Week, spot: Spot | undefined, name: (id: string) => string, t: TFunction): string {
  const session = spot && week.sessions[spot.session];
  const card = spot && cardAt(week, spot);
  if (!session || !card) return "";
  const [place, count] = [spot.place + 1, session.items.length];
  return t("card.pickedOne", { name: name(card.exercise), day: dayName(session.day), place, count });
}

/** Rules of a day that no card of it carries. */
function dayRules(plan: Plan, day: number): string[] {
  const own = (plan.broken ?? []).filter((broken) => broken.cards.length === 0 && broken.days.includes(day));
  return own.map(({ says }) => says);
}

/** A spot more among those picked, or one less. */
function toggled(picks: Spot[], spot: Spot): Spot[] {
  const others = picks.filter(({ session, place }) => session !== spot.session || place !== spot.place);
  return others.length < picks.length ? others : [...picks, spot];
}

interface Keys {
  week: Week;
  picks: Spot[];
  setPicks: (spots: Spot[]) => void;
  onWrite: (spots: Spot[]) => void;
  onChange: (week: Week, tag?: string) => void;
  onSwap: (spot: Spot) => void;
  onOpen: (key: string | undefined) => void;
  editable: boolean;
}

const STEPS = { ArrowUp: "up", ArrowDown: "down", ArrowLeft: "left", ArrowRight: "right" } as const;

/**
 * j and k pick a card, J and K one more; Alt with an arrow moves it; + and - change its sets; e writes on all that are picked;
 * u does it in turns with the next, U by itself; x swaps, i locks, o opens, Delete takes it out.
 */
function useBoardKeys(keys: Keys): void {
  const { week, picks, setPicks, onChange, onSwap, onWrite, onOpen, editable } = keys;
  const picked = picks.at(-1);
  const setPicked = (spot: Spot | undefined) => setPicks(spot ? [spot] : []);
  const card = picked && cardAt(week, picked);
  const spots = week.sessions.flatMap(({ items }, session) => items.map((_, place) => ({ session, place })));
  const at = spots.findIndex((spot) => spot.session === picked?.session && spot.place === picked.place);
  const pick = (by: number) => setPicked(spots[Math.min(spots.length - 1, Math.max(0, at + by))]);
  const pickMore = (by: number) => {
    const next = spots[at + by];
    const known =
      next && picks.some(({ session, place }) => session === next.session && place === next.place);
    // Back over what was picked lets the last one go.
    if (next) setPicks(known ? picks.slice(0, -1) : [...picks, next]);
  };
  const [pickDown, pickUp] = [() => pickMore(1), () => pickMore(-1)];
  const edit = (change: (spot: Spot) => void) => () => {
    if (editable && picked && card) change(picked);
  };
  useKeys({
    next: () => pick(1),
    previous: () => pick(-1),
    open: () => picked && card && onOpen(cardKey(picked.session, card.exercise)),
    pickDown,
    pickUp,
    write: edit(() => onWrite(picks)),
    join: edit((spot) => onChange(joined(week, spot))),
    part: edit((spot) => onChange(parted(week, spot))),
    swapCard: edit(onSwap),
    lock: edit((spot) => onChange(changed(week, spot, { locked: !card?.locked }))),
    moreSets: edit((spot) => onChange(withSets(week, spot, 1), `sets ${card?.exercise}`)),
    fewerSets: edit((spot) => onChange(withSets(week, spot, -1), `sets ${card?.exercise}`)),
    takeOut: edit((spot) => onChange(without(week, spot))),
  });
  const step = useEffectEvent((arrow: keyof typeof STEPS) => {
    const to = editable && picked ? beside(week, picked, STEPS[arrow]) : undefined;
    const next = picked && to ? moved(week, picked, to) : week;
    if (next === week) return;
    onChange(next);
    setPicked(to);
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || !(event.key in STEPS) || isTyping(event.target)) return;
      // With Alt the browser itself would go back and forth in its history.
      event.preventDefault();
      step(event.key as keyof typeof STEPS);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
