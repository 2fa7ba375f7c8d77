// The tests as they are typed, and what they become for the server. Pure.
import type { Schemas } from "../../shared/api/client";
import { parseNumber } from "../../shared/format";

export type Side = Schemas["Side"];
export type TestEntry = Schemas["TestEntry"];
export type Exercise = Schemas["CatalogueExercise"];

export interface SetTexts {
  load: string;
  reps: string;
}

export interface StrengthRow {
  exercise: string;
  left: SetTexts;
  right: SetTexts;
}

export interface FeelRow {
  exercise: string;
  region: string;
  /** Empty until somebody says. */
  felt: string;
}

/** The sheet of tests as it is worked on. */
export interface Typing {
  strength: StrengthRow[];
  hang: string;
  feel: FeelRow[];
}

const NOTHING: SetTexts = { load: "", reps: "" };

export const newStrength = (exercise: string): StrengthRow => ({ exercise, left: NOTHING, right: NOTHING });

const textsOf = ({ load_kg, reps }: { load_kg: number; reps: number }): SetTexts => ({
  load: String(load_kg),
  reps: String(reps),
});

/** Stored tests as they are worked on. */
export function typingOf(tests: TestEntry[]): Typing {
  const typing: Typing = { strength: [], hang: "", feel: [] };
  for (const test of tests) {
    if (test.kind === "one-side")
      typing.strength.push({ exercise: test.exercise, left: textsOf(test.left), right: textsOf(test.right) });
    else if (test.kind === "hang") typing.hang = String(test.seconds);
    else typing.feel.push({ exercise: test.exercise, region: test.region, felt: test.felt });
  }
  return typing;
}

function setOf({ load, reps }: SetTexts): { load_kg: number; reps: number } | undefined {
  const [kg, count] = [parseNumber(load), parseNumber(reps)];
  return kg === undefined || count === undefined || !Number.isInteger(count)
    ? undefined
    : { load_kg: kg, reps: count };
}

export interface Typed {
  tests: TestEntry[];
  /** Which row each test comes from: `strength 0`, `hang` or `feel 1`. */
  rows: string[];
  /** Rows with something typed that is not a whole test yet. */
  unfinished: string[];
}

/** What is whole goes to the server; the rest waits in its row. */
export function typed({ strength, hang, feel }: Typing): Typed {
  const result: Typed = { tests: [], rows: [], unfinished: [] };
  const put = (row: string, test: TestEntry | undefined, begun: boolean) => {
    if (test) {
      result.tests.push(test);
      result.rows.push(row);
    } else if (begun) result.unfinished.push(row);
  };
  strength.forEach(({ exercise, left, right }, index) => {
    const [one, other] = [setOf(left), setOf(right)];
    const begun = [left, right].some(({ load, reps }) => load.trim() || reps.trim());
    put(`strength ${index}`, one && other && { kind: "one-side", exercise, left: one, right: other }, begun);
  });
  const seconds = parseNumber(hang);
  put("hang", seconds === undefined ? undefined : { kind: "hang", seconds }, hang.trim() !== "");
  feel.forEach(({ exercise, region, felt }, index) => {
    put(`feel ${index}`, felt ? { kind: "feel", exercise, region, felt } : undefined, false);
  });
  return result;
}

/** The server's problems by row. */
export function problemsByRow(problems: Schemas["Problem"][], sent: Typed): Record<string, string[]> {
  const found: Record<string, string[]> = {};
  for (const { pointer, says } of problems) {
    const row = sent.rows[Number(pointer.split("/")[2])];
    if (row) found[row] = [...(found[row] ?? []), says];
  }
  return found;
}

/** Tests at which two sheets differ. */
export function differing(mine: Typing, theirs: Typing): number {
  const keyed = (typing: Typing) => new Set(typed(typing).tests.map((test) => JSON.stringify(test)));
  const [one, other] = [keyed(mine), keyed(theirs)];
  const only = (a: Set<string>, b: Set<string>) => [...a].filter((key) => !b.has(key)).length;
  return Math.max(only(one, other), only(other, one));
}

/** Exercises that can be tested one side at a time, to a count of repetitions. */
export const testable = (exercise: Exercise): boolean => exercise.sides !== "both" && !!exercise.reps;

/** The main regions of an exercise. */
export const mainRegions = (exercise: Exercise | undefined): string[] =>
  Object.entries(exercise?.targets ?? {})
    .filter(([, share]) => share >= 1)
    .map(([region]) => region);

/** mm:ss of a running clock. */
export const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;
