// What a training screen works out from the week, the log and the clock. No React, no storage.
import type { Schemas } from "../../shared/api/client";

export type Week = Schemas["TrainingView"];
export type Session = Schemas["TrainingSession"];
export type Item = Schemas["TrainingItem"];
export type Entry = Schemas["LogEntry"];
export type EntryView = Schemas["LogEntryView"];
export type ExercisePart = Extract<Entry["part"], { kind: "exercise" }>;
export type SessionPart = Extract<Entry["part"], { kind: "session" }>;
export type LogSet = Schemas["LogSet"];
export type Pain = Schemas["LogPain"];
export type Side = Schemas["Side"];

/** One set to be done: its number and side. */
export interface Row {
  number: number;
  side?: Side;
}

/** What is about to be logged. */
export interface Typed {
  load_kg?: number;
  count: number;
  reserve?: number;
}

/** The session an entry belongs to. */
export interface Place {
  plan: string;
  week: number;
  day: number;
}

export const sameDay = (entry: Entry, { plan, week, day }: Place): boolean =>
  entry.plan === plan && entry.week === week && entry.day === day;

/** The versions that nothing follows, in the order given; more than one stand side by side. */
export function heads(entries: EntryView[]): EntryView[] {
  const followed = new Set(entries.flatMap(({ entry }) => entry.follows ?? []));
  const seen = new Set<string>();
  return entries.filter(({ entry }) => {
    const fresh = !followed.has(entry.id) && !seen.has(entry.id);
    seen.add(entry.id);
    return fresh;
  });
}

export const partOf = (entry: Entry): string => (entry.part.kind === "exercise" ? entry.part.exercise : "");

/** Versions of one part of a session: what the server has, then what this device has not sent yet. */
export function versions(known: EntryView[], local: EntryView[], place: Place, part: string): EntryView[] {
  const own = local.filter(({ entry }) => sameDay(entry, place) && partOf(entry) === part);
  return heads([...known, ...own]);
}

/** The side that goes first: the weaker one. */
export function firstSide({ item }: Item): Side | undefined {
  if (item.sides === "left-first") return "left";
  return item.sides === "right-first" ? "right" : undefined;
}

export const otherSide = (side: Side): Side => (side === "left" ? "right" : "left");

/** The sets of an exercise in the order in which they are done: the weaker side first, its extra sets last. */
export function rowsOf(item: Item): Row[] {
  const numbers = Array.from({ length: item.item.sets }, (_, index) => index + 1);
  const first = firstSide(item);
  if (!first) return numbers.map((number) => ({ number }));
  const extra = Array.from({ length: item.item.extra_sets_weaker }, (_, index) => item.item.sets + index + 1);
  return [
    ...numbers.flatMap((number) => [
      { number, side: first },
      { number, side: otherSide(first) },
    ]),
    ...extra.map((number) => ({ number, side: first })),
  ];
}

export const setAt = (sets: LogSet[], row: Row): LogSet | undefined =>
  sets.find(({ number, side }) => number === row.number && (side ?? undefined) === row.side);

export const nextRow = (rows: Row[], sets: LogSet[]): Row | undefined =>
  rows.find((row) => !setAt(sets, row));

export const countOf = (set: LogSet): number => set.reps ?? set.seconds ?? 0;

/** Whether an exercise is counted in seconds, by itself or by its scheme. */
export function inSeconds(item: Item, instead?: string): boolean {
  if (item.scheme_set_s != null) return true;
  const other = item.instead.find(({ exercise }) => exercise === instead);
  return other ? other.seconds : item.item.seconds != null;
}

/** What the stronger side is held to: what the weaker one managed in the same set. */
export function heldTo(item: Item, row: Row, sets: LogSet[]): LogSet | undefined {
  const first = firstSide(item);
  if (!first || !row.side || row.side === first) return undefined;
  return setAt(sets, { number: row.number, side: first });
}

/** What a set starts from: the weaker side's numbers, else this session's load, else the target, else last time. */
export function startOf(item: Item, row: Row, sets: LogSet[]): Typed {
  const held = heldTo(item, row, sets);
  if (held)
    return { load_kg: held.load_kg ?? undefined, count: countOf(held), reserve: held.reserve ?? undefined };
  const before = sets.filter(({ side }) => (side ?? undefined) === row.side).at(-1);
  const last = item.last?.sets.find(({ side }) => (side ?? undefined) === row.side) ?? item.last?.sets[0];
  const load_kg = before ? before.load_kg : (item.target.load_kg ?? last?.load_kg);
  const count = item.target.counts[row.number - 1] ?? item.target.counts.at(-1) ?? 8;
  return { load_kg: load_kg ?? undefined, count, reserve: item.item.reserve };
}

/** The stronger side does what the weaker one did, no more. */
export function capped(typed: Typed, held: LogSet | undefined): Typed {
  if (!held) return typed;
  const most = held.load_kg ?? undefined;
  const load_kg =
    typed.load_kg !== undefined && most !== undefined ? Math.min(typed.load_kg, most) : typed.load_kg;
  return { ...typed, load_kg, count: Math.min(typed.count, countOf(held)) };
}

/** The studio takes no more than this in one set (the log's own bounds; the server says so too). */
const MOST = { load_kg: 600, reps: 200, seconds: 1800 };

/** Which of the numbers about to be logged is beyond what anybody does. */
export function beyond(
  { load_kg, count }: Typed,
  seconds: boolean,
): { what: keyof typeof MOST; most: number } | undefined {
  if ((load_kg ?? 0) > MOST.load_kg) return { what: "load_kg", most: MOST.load_kg };
  const what = seconds ? "seconds" : "reps";
  return count > MOST[what] ? { what, most: MOST[what] } : undefined;
}

/** By how much the load's stepper goes, kg. */
export function stepKg(item: Item, load_kg: number | undefined): number {
  const own = item.item.progression.step_kg;
  if (own) return own;
  return (load_kg ?? 0) < 10 ? 1 : 2.5;
}

export function stepped(load_kg: number | undefined, by: number): number | undefined {
  const next = Math.round(((load_kg ?? 0) + by) * 100) / 100;
  return next > 0 ? next : undefined;
}

export function loggedSet(row: Row, typed: Typed, seconds: boolean): LogSet {
  return {
    number: row.number,
    side: row.side,
    load_kg: typed.load_kg,
    reps: seconds ? undefined : typed.count,
    seconds: seconds ? typed.count : undefined,
    reserve: seconds ? undefined : typed.reserve,
  };
}

/** A fresh part for an exercise nobody has logged yet. */
export function emptyPart(item: Item): ExercisePart {
  return {
    kind: "exercise",
    exercise: item.item.exercise,
    position: item.item.order,
    scheme: item.item.scheme,
    sets: [],
  };
}

export const RED_FLAGS: Schemas["RedFlag"][] = [
  "sharp-pain",
  "numbness",
  "swelling",
  "night-pain",
  "loss-of-strength",
];

/** Pain from which an exercise stops; the server says so too. */
const STOPS_FROM = 3;

type Told = Partial<Pain> | null | undefined;
export const refers = (pain: Told): boolean => (pain?.red_flags?.length ?? 0) > 0;
export const stops = (pain: Told): boolean => (pain?.level ?? 0) >= STOPS_FROM || refers(pain);

/** Whether the exercise as it is done now is stopped: a sign for a doctor stops what stands in its place too. */
export const isStopped = ({ pain, exercise, instead }: ExercisePart): boolean =>
  refers(pain) || (stops(pain) && (pain?.during ?? instead ?? exercise) === (instead ?? exercise));

/** What could be done instead: nothing that loads the place that hurts. */
export function swapsFor(item: Item, pain?: Pain | null): Item["instead"] {
  return item.instead.filter(({ loads_joint }) => !pain || !loads_joint.includes(pain.area));
}

/** A clock a set scheme is done by. */
export type SchemeClock = { kind: "count-down"; seconds: number } | { kind: "ladder" } | undefined;

/** Seconds of a pause within a set, and of a hold at its end. */
const PAUSE_S = 12;
const HOLD_S = 10;

export function clockOf(item: Item): SchemeClock {
  switch (item.item.scheme) {
    case "timed":
      return { kind: "count-down", seconds: item.scheme_set_s ?? 45 };
    case "rest-pause":
      return { kind: "count-down", seconds: PAUSE_S };
    case "hold":
      return { kind: "count-down", seconds: HOLD_S };
    case "ladder":
      return { kind: "ladder" };
    default:
      return item.item.seconds ? { kind: "count-down", seconds: item.item.seconds.at(-1) ?? 45 } : undefined;
  }
}

/** Repetitions of a ladder climbed to a rung: one more on each. */
export const ladderReps = (rung: number): number => (rung * (rung + 1)) / 2;

/** `1:05`. */
export function clockText(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** Progress of a session: exercises with every set done, or stopped. */
export function isDone(item: Item, part: ExercisePart | undefined): boolean {
  if (!part) return false;
  return isStopped(part) || nextRow(rowsOf(item), part.sets) === undefined;
}

/** `12.5 kg × 10`, for a set as it was done. */
export function setText(set: LogSet): string {
  const count = set.seconds != null ? `${set.seconds} s` : String(set.reps);
  return set.load_kg != null ? `${set.load_kg} kg × ${count}` : count;
}

/** Sets of one side in a line: the load once where it stays the same. */
export function setsText(sets: LogSet[], side?: Side): string {
  const own = sets.filter((set) => !side || set.side === side);
  const loads = new Set(own.map(({ load_kg }) => load_kg ?? undefined));
  const count = (set: LogSet) => (set.seconds != null ? `${set.seconds} s` : String(set.reps));
  const [load] = loads;
  if (loads.size === 1 && load !== undefined) return `${load} kg × ${own.map(count).join(", ")}`;
  return own.map(setText).join(", ");
}
