// Putting right what was logged on any day: what is typed, and the versions it makes. No React.
import type { Schemas } from "../../shared/api/client";
import { parseSigned } from "../../shared/format";
import {
  countOf,
  type Entry,
  type EntryView,
  type ExercisePart,
  type LogSet,
  type SessionPart,
} from "./model";

export type Done = Schemas["DoneSession"];

/** A set as it stands in the fields. */
export interface TypedSet {
  number: number;
  side?: LogSet["side"];
  seconds: boolean;
  /** What was logged is help, a load under nothing. */
  helped?: boolean;
  load: string;
  count: string;
  reserve: string;
}

/** An exercise as it stands in the fields. */
export interface TypedPart {
  exercise: string;
  sets: TypedSet[];
  note: string;
  /** 0 to 10; only where pain was told. */
  pain?: string;
}

export interface Correction {
  on: string;
  sleep: string;
  soreness: string;
  note: string;
  parts: TypedPart[];
}

const exercisePart = ({ entry }: EntryView) => entry.part as ExercisePart;
const text = (value: number | null | undefined) => (value == null ? "" : String(value));
const number = (typed: string) => (typed.trim() === "" ? undefined : parseSigned(typed));

function typedSet(set: LogSet): TypedSet {
  return {
    number: set.number,
    side: set.side,
    seconds: set.seconds != null,
    helped: (set.load_kg ?? 0) < 0,
    load: text(set.load_kg),
    count: text(countOf(set)),
    reserve: text(set.reserve),
  };
}

/** What can be put right: parts with one version. Of two side by side it is decided first which counts. */
const single = (session: Done) =>
  session.exercises.filter(
    (view) =>
      session.exercises.filter((other) => exercisePart(other).exercise === exercisePart(view).exercise)
        .length === 1,
  );

export function correctionOf(session: Done): Correction {
  return {
    on: session.on,
    sleep: text(session.sleep),
    soreness: text(session.soreness),
    note: session.note ?? "",
    parts: single(session).map((view) => {
      const { exercise, sets, note, pain } = exercisePart(view);
      return {
        exercise,
        sets: sets.map(typedSet),
        note: note ?? "",
        pain: pain ? text(pain.level) : undefined,
      };
    }),
  };
}

/** One more set like the last one. */
export function withSet(part: TypedPart): TypedPart {
  const last = part.sets.at(-1);
  const next = Math.max(0, ...part.sets.map((set) => set.number)) + 1;
  const set = last
    ? { ...last, number: next }
    : { number: next, seconds: false, load: "", count: "", reserve: "" };
  return { ...part, sets: [...part.sets, set] };
}

/** Whether a field holds a number that counts whole things, or nothing. */
export const isWhole = (typed: string): boolean =>
  typed.trim() === "" || (Number.isInteger(number(typed)) && (number(typed) ?? -1) >= 0);

/** Whether a field holds a load or nothing; what was help may stay help. */
export const isLoad = (typed: string, helped = false): boolean =>
  typed.trim() === "" || (number(typed) ?? 0) > 0 || (helped && (number(typed) ?? 0) < 0);

/** Whether a field says how often or how long. */
export const isCount = (typed: string): boolean => typed.trim() !== "" && isWhole(typed);

/** Whether everything typed is a number where one belongs. */
export const isReadable = ({ on, sleep, soreness, parts }: Correction): boolean =>
  on !== "" &&
  [sleep, soreness].every(isWhole) &&
  parts.every(
    ({ sets, pain }) =>
      isWhole(pain ?? "") &&
      sets.every(
        ({ load, helped, count, reserve }) => isLoad(load, helped) && isWhole(reserve) && isCount(count),
      ),
  );

function loggedSet(typed: TypedSet, was: LogSet | undefined): LogSet {
  const count = number(typed.count);
  return {
    ...was,
    number: typed.number,
    side: typed.side,
    load_kg: number(typed.load),
    reps: typed.seconds ? undefined : count,
    seconds: typed.seconds ? count : undefined,
    reserve: number(typed.reserve),
  };
}

function correctedPart(typed: TypedPart, was: ExercisePart): ExercisePart {
  const before = (set: TypedSet) =>
    was.sets.find(({ number, side }) => number === set.number && side === set.side);
  const level = typed.pain === undefined ? undefined : number(typed.pain);
  return {
    ...was,
    sets: typed.sets.map((set) => loggedSet(set, before(set))),
    note: typed.note.trim() || undefined,
    pain: was.pain && level !== undefined ? { ...was.pain, level } : undefined,
  };
}

function correctedWhole(typed: Correction, was: SessionPart | undefined): SessionPart {
  return {
    kind: "session",
    finished: was?.finished ?? false,
    sleep: number(typed.sleep),
    soreness: number(typed.soreness),
    note: typed.note.trim() || undefined,
  };
}

/** The versions a correction makes: of the parts that changed, or of all when the day did. */
export function corrections(session: Done, typed: Correction, id: () => string, at: string): Entry[] {
  const first = (session.exercises[0] ?? session.whole[0])?.entry;
  if (!first) return [];
  const was = correctionOf(session);
  const moved = typed.on !== was.on;
  const version = (follows: string[], part: Entry["part"]): Entry => ({
    id: id(),
    follows,
    plan: first.plan,
    week: first.week,
    day: first.day,
    trained_on: typed.on,
    at,
    part,
  });
  const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
  const exercises = single(session).flatMap((view, place) => {
    const now = typed.parts[place];
    if (!now || (!moved && same(now, was.parts[place]))) return [];
    return [version([view.entry.id], correctedPart(now, exercisePart(view)))];
  });
  const whole = ({ sleep, soreness, note }: Correction) => ({ sleep, soreness, note });
  const told = !same(whole(typed), whole(was)) || (moved && session.whole.length > 0);
  if (!told) return exercises;
  const follows = session.whole.map(({ entry }) => entry.id);
  return [
    ...exercises,
    version(follows, correctedWhole(typed, session.whole[0]?.entry.part as SessionPart | undefined)),
  ];
}
