import { expect, test } from "vitest";
import { type Correction, correctionOf, corrections, type Done, isReadable, withSet } from "./correct";

const view = (id: string, part: object) => ({
  entry: {
    id,
    follows: [],
    plan: "plan",
    week: 3,
    day: 2,
    trained_on: "2026-02-10",
    at: "2026-02-10T18:00:00Z",
    part,
  },
  written_by: "Ada",
  written_at: "2026-02-10T18:00:00Z",
});

const curl = {
  kind: "exercise",
  exercise: "curl",
  position: 1,
  scheme: "straight",
  felt: "biceps-long",
  pain: { level: 4, area: "elbow", during: "curl" },
  sets: [
    { number: 1, side: "left", load_kg: 12.5, reps: 10, reserve: 2 },
    { number: 1, side: "right", load_kg: 12.5, reps: 10, reserve: 2 },
  ],
};
const hang = {
  kind: "exercise",
  exercise: "hang",
  position: 2,
  scheme: "straight",
  sets: [{ number: 1, seconds: 30 }],
};
const whole = { kind: "session", finished: true, sleep: 4 };

const session = {
  version: 1,
  week: 3,
  day: 2,
  on: "2026-02-10",
  finished: true,
  conflicts: 0,
  sleep: 4,
  exercises: [view("a", curl), view("b", hang)],
  whole: [view("w", whole)],
} as unknown as Done;

const made = (change: (typed: Correction) => Correction, of = session) => {
  let count = 0;
  return corrections(of, change(correctionOf(of)), () => `new ${++count}`, "2026-03-01T09:00:00Z");
};

const withLoad = (load: string) => (typed: Correction) => ({
  ...typed,
  parts: typed.parts.map((part, place) =>
    place === 0 ? { ...part, sets: part.sets.map((set, at) => (at === 0 ? { ...set, load } : set)) } : part,
  ),
});

const withCount = (count: string) => (typed: Correction) => ({
  ...typed,
  parts: typed.parts.map((part) => ({ ...part, sets: part.sets.map((set) => ({ ...set, count })) })),
});

test("what was looked at and not changed makes no version", () => {
  expect(made((typed) => typed)).toEqual([]);
});

test("a load put right makes one version of that exercise, with all the rest as it was", () => {
  const [entry, ...more] = made(withLoad("21,5"));
  expect(more).toEqual([]);
  expect(entry).toMatchObject({
    id: "new 1",
    follows: ["a"],
    plan: "plan",
    week: 3,
    day: 2,
    trained_on: "2026-02-10",
  });
  expect(entry?.part).toEqual({
    ...curl,
    note: undefined,
    sets: [
      { number: 1, side: "left", load_kg: 21.5, reps: 10, seconds: undefined, reserve: 2 },
      { number: 1, side: "right", load_kg: 12.5, reps: 10, seconds: undefined, reserve: 2 },
    ],
  });
});

test("another day moves everything of the session", () => {
  const entries = made((typed) => ({ ...typed, on: "2026-02-09" }));
  expect(entries.map(({ follows }) => follows)).toEqual([["a"], ["b"], ["w"]]);
  expect(new Set(entries.map(({ trained_on }) => trained_on))).toEqual(new Set(["2026-02-09"]));
  expect(entries[2]?.part).toEqual({ ...whole, soreness: undefined, note: undefined });
});

test("pain told by mistake is taken out, and nothing else of the exercise", () => {
  const [entry] = made((typed) => ({
    ...typed,
    parts: typed.parts.map((part) => (part.pain === undefined ? part : { ...part, pain: "" })),
  }));
  expect(entry?.part).toMatchObject({ exercise: "curl", felt: "biceps-long", pain: undefined });
});

test("a set that was forgotten is one more in seconds, as the exercise is counted", () => {
  const [entry] = made((typed) => ({
    ...typed,
    parts: typed.parts.map((part, place) => (place === 1 ? withSet(part) : part)),
  }));
  expect(entry?.follows).toEqual(["b"]);
  expect(entry?.part).toMatchObject({
    sets: [
      { number: 1, seconds: 30 },
      { number: 2, seconds: 30 },
    ],
  });
});

test("a night that nobody told makes a first entry of the session as a whole", () => {
  const bare = { ...session, whole: [], sleep: undefined } as Done;
  const entries = made((typed) => ({ ...typed, sleep: "2" }), bare);
  expect(entries).toHaveLength(1);
  expect(entries[0]).toMatchObject({ follows: [], part: { kind: "session", finished: false, sleep: 2 } });
});

test("what stands side by side is not put right before it is decided", () => {
  const twice = { ...session, exercises: [...session.exercises, view("c", curl)] } as Done;
  expect(correctionOf(twice).parts.map(({ exercise }) => exercise)).toEqual(["hang"]);
});

test.each([
  ["a word for a load", withLoad("ten"), false],
  ["no load, as of the body alone", withLoad(""), true],
  ["half a repetition", withCount("9,5"), false],
  ["no repetitions", withCount(""), false],
  ["a load below nothing", withLoad("-5"), false],
  ["no day", (typed: Correction) => ({ ...typed, on: "" }), false],
  ["a word for the night", (typed: Correction) => ({ ...typed, sleep: "well" }), false],
])("%s can be saved or not", (_, change, readable) => {
  expect(isReadable(change(correctionOf(session)))).toBe(readable);
});

test("help that was logged as a load under nothing is put right as help", () => {
  const helped = view("h", { ...curl, sets: [{ number: 1, load_kg: -20, reps: 8 }] });
  const typed = correctionOf({ ...session, exercises: [helped] } as Done);
  expect(typed.parts[0]?.sets[0]?.load).toBe("-20");
  expect(isReadable(typed)).toBe(true);
});
