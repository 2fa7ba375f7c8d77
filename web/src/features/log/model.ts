// What a training screen works out from the week, the log and the clock. No React, no storage.
import type { Schemas } from "../../shared/api/client";
import type { Quantity } from "../../shared/format";

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

export type LogPart = Schemas["LogSetPart"];
export type PlannedSet = Schemas["PlannedSet"];
export type PlannedPart = Schemas["PlannedPart"];
export type Form = Schemas["Form"];

/** What is about to be logged. */
export interface Typed {
  load_kg?: number;
  count: number;
  reserve?: number;
  /** What follows straight on it; what was not done is left out. */
  parts?: LogPart[];
}

/** A week as this device kept it, with what earlier versions of the page did not know of. */
export function completed(week: Week): Week {
  const sessions = week.sessions.map((session) => ({
    ...session,
    run: session.run ?? [],
    warm_up: session.warm_up ?? { takes_s: 0 },
    items: session.items.map((item) => ({
      ...item,
      forms: item.forms ?? [],
      variants: item.variants ?? [],
      set_up_fields: item.set_up_fields ?? [],
      lighter_sets: item.lighter_sets ?? Math.ceil(item.item.sets / 2),
    })),
  }));
  return { ...week, sessions };
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
export function rowsOf(item: Item, lighter = false): Row[] {
  const sets = lighter ? item.lighter_sets : item.item.sets;
  const numbers = Array.from({ length: sets }, (_, index) => index + 1);
  const first = firstSide(item);
  if (!first) return numbers.map((number) => ({ number }));
  const more = lighter ? 0 : item.item.extra_sets_weaker;
  const extra = Array.from({ length: more }, (_, index) => item.item.sets + index + 1);
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

/** Whether an exercise is counted in seconds, by itself, by its scheme or as the coach wrote it. */
export function inSeconds(item: Item, instead?: string): boolean {
  const other = item.instead.find(({ exercise }) => exercise === instead);
  return other ? other.seconds : item.item.seconds != null;
}

/** What the stronger side is held to: what the weaker one managed in the same set. */
export function heldTo(item: Item, row: Row, sets: LogSet[]): LogSet | undefined {
  const first = firstSide(item);
  if (!first || !row.side || row.side === first) return undefined;
  return setAt(sets, { number: row.number, side: first });
}

/** How a set is planned, where sets differ; a set more for the weaker side is a usual one. */
export const plannedSet = (item: Item, number: number): PlannedSet | undefined =>
  item.item.per_set?.find((set) => set.number === number);

/** What follows straight on a set by plan. */
export const plannedParts = (item: Item, number: number): PlannedPart[] =>
  plannedSet(item, number)?.parts ?? [];

/** A part as it is about to be logged: its share of the set's load, the lower end of its range. */
export function startPart(part: PlannedPart, load_kg: number | undefined, step: number): LogPart {
  const share = part.load_pct == null || load_kg === undefined ? undefined : (load_kg * part.load_pct) / 100;
  const load = share === undefined ? undefined : Math.max(step, Math.floor(share / step + 1e-9) * step);
  const timed = part.kind === "hold" || part.kind === "carry";
  return {
    kind: part.kind,
    load_kg: load === undefined ? undefined : Math.round(load * 100) / 100,
    reps: timed ? undefined : (part.reps?.[0] ?? 1),
    seconds: timed ? (part.seconds ?? 10) : undefined,
  };
}

/** What a set starts from: the weaker side's numbers, else this session's load, else the target, else last time. */
export function startOf(item: Item, row: Row, sets: LogSet[]): Typed {
  const held = heldTo(item, row, sets);
  if (held)
    return { load_kg: held.load_kg ?? undefined, count: countOf(held), reserve: held.reserve ?? undefined };
  const before = sets.filter(({ side }) => (side ?? undefined) === row.side).at(-1);
  const last = item.last?.sets.find(({ side }) => (side ?? undefined) === row.side) ?? item.last?.sets[0];
  const own = item.target.loads_kg?.[row.number - 1];
  const load_kg = own ?? (before ? before.load_kg : (item.target.load_kg ?? last?.load_kg));
  const count = item.target.counts[row.number - 1] ?? item.target.counts.at(-1) ?? 8;
  const reserve = plannedSet(item, row.number)?.reserve ?? item.item.reserve;
  return { load_kg: load_kg ?? undefined, count, reserve };
}

/** The stronger side does what the weaker one did, no more. */
export function capped(typed: Typed, held: LogSet | undefined): Typed {
  if (!held) return typed;
  const most = held.load_kg ?? undefined;
  const load_kg =
    typed.load_kg !== undefined && most !== undefined ? Math.min(typed.load_kg, most) : typed.load_kg;
  return { ...typed, load_kg, count: Math.min(typed.count, countOf(held)) };
}

/** From so many times the last load on somebody is asked whether it is meant. */
const FAR = 10;

/** The load of last time or of the set before, when the one about to be kept is ten times as much or more. */
export function farFrom(last: Item["last"], sets: LogSet[], load_kg: number | undefined): number | undefined {
  const known = [...(last?.sets ?? []), ...sets].flatMap(({ load_kg: kg }) => (kg != null ? [kg] : []));
  const most = Math.max(0, ...known.map(Math.abs));
  return most > 0 && Math.abs(load_kg ?? 0) >= FAR * most ? most : undefined;
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

/** The steps of the load's stepper where the plan has none, below a load and from it on, in the unit itself. */
const STEPS = { kg: [1, 10, 2.5], lb: [2.5, 20, 5] } as const;

/** By how much the load's stepper goes, in the unit of the log. */
export function stepOf(mass: Quantity, item: Item, load_kg: number | undefined): number {
  const planned = item.item.progression.step_kg;
  if (planned) return Math.round(mass.of(planned) * 100) / 100;
  const [light, from, heavy] = STEPS[mass.unit === "lb" ? "lb" : "kg"];
  return mass.of(load_kg ?? 0) < from ? light : heavy;
}

/** A load, kg, so many of the unit further. */
export function stepped(mass: Quantity, load_kg: number | undefined, by: number): number | undefined {
  const next = Math.round((mass.of(load_kg ?? 0) + by) * 100) / 100;
  return next > 0 ? mass.from(next) : undefined;
}

/** What comes after a set in a session: the card, and how long to rest before it. */
export interface Next {
  card?: number;
  rest_s: number;
}

/** What comes after a set as the session is run: the other side, the next of the group, or a rest. */
export function afterSet(
  session: Session,
  card: number,
  row: Row,
  done: (card: number, row: Row) => boolean,
): Next {
  const at = session.run.findIndex(
    (step) => step.card === card && step.set === row.number && (step.side ?? undefined) === row.side,
  );
  const step = session.run[at];
  if (!step) {
    // A plan of before the run was written down rests as the card says, once both sides are done.
    const item = session.items[card];
    const between = item && row.side !== undefined && row.side === firstSide(item);
    return { rest_s: between ? 0 : (item?.item.rest_s ?? 0) };
  }
  const open = session.run
    .slice(at + 1)
    .find((next) => !done(next.card, { number: next.set, side: next.side ?? undefined }));
  const group = session.items[card]?.item.group;
  const together = group != null && open !== undefined && session.items[open.card]?.item.group === group;
  return { card: together ? open.card : undefined, rest_s: Math.round(step.rest_s) };
}

/** Where an exercise stands in its group: A1, A2. */
export function groupMark(session: Session, at: number): string | undefined {
  const group = session.items[at]?.item.group;
  if (group == null) return undefined;
  const first = session.items.findIndex(({ item }) => item.group === group);
  return `${group}${at - first + 1}`;
}

export function loggedSet(row: Row, typed: Typed, seconds: boolean): LogSet {
  return {
    number: row.number,
    side: row.side,
    load_kg: typed.load_kg,
    reps: seconds ? undefined : typed.count,
    seconds: seconds ? typed.count : undefined,
    reserve: seconds ? undefined : typed.reserve,
    parts: typed.parts && typed.parts.length > 0 ? typed.parts : undefined,
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

/** The clock of a set by itself; what follows straight on it has its own. */
export function clockOf(item: Item): SchemeClock {
  if (item.item.scheme === "ladder") return { kind: "ladder" };
  if (item.scheme_set_s != null && inSeconds(item)) return { kind: "count-down", seconds: item.scheme_set_s };
  return item.item.seconds ? { kind: "count-down", seconds: item.item.seconds.at(-1) ?? 45 } : undefined;
}

/** Repetitions of a ladder climbed to a rung: one more on each. */
export const ladderReps = (rung: number): number => (rung * (rung + 1)) / 2;

/** `1:05`. */
export function clockText(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** Progress of a session: exercises with every set done, or stopped. */
export function isDone(item: Item, part: ExercisePart | undefined, lighter = false): boolean {
  if (!part) return false;
  return isStopped(part) || nextRow(rowsOf(item, lighter), part.sets) === undefined;
}

/** A load as it is said; what is under 0 helps. */
export const loadText = (mass: Quantity, kg: number): string =>
  kg < 0 ? `−${mass.full(-kg)}` : mass.full(kg);

/** `12.5 kg × 10`, for a set as it was done; `+ 8` for what followed straight on it. */
export function setText(mass: Quantity, set: LogSet): string {
  const one = ({ load_kg, reps, seconds }: Pick<LogSet, "load_kg" | "reps" | "seconds">) => {
    const count = seconds != null ? `${seconds} s` : String(reps);
    return load_kg != null ? `${loadText(mass, load_kg)} × ${count}` : count;
  };
  return [one(set), ...(set.parts ?? []).map(one)].join(" + ");
}

/** Sets of one side in a line: the load once where it stays the same. */
export function setsText(mass: Quantity, sets: LogSet[], side?: Side): string {
  const own = sets.filter((set) => !side || set.side === side);
  const loads = new Set(own.map(({ load_kg }) => load_kg ?? undefined));
  const count = (set: LogSet) => (set.seconds != null ? `${set.seconds} s` : String(set.reps));
  const [load] = loads;
  const plain = own.every(({ parts }) => !parts?.length);
  if (loads.size === 1 && load !== undefined && plain)
    return `${loadText(mass, load)} × ${own.map(count).join(", ")}`;
  return own.map((set) => setText(mass, set)).join(", ");
}
