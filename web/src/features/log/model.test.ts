import { describe, expect, test } from "vitest";
import { METRIC, quantitiesIn } from "../../shared/format";
import {
  capped,
  clockOf,
  clockText,
  completed,
  type Entry,
  type EntryView,
  type ExercisePart,
  farFrom,
  heads,
  heldTo,
  type Item,
  isDone,
  isStopped,
  type LogSet,
  ladderReps,
  loggedSet,
  nextRow,
  rowsOf,
  setsText,
  startOf,
  stepOf,
  stepped,
  swapsFor,
  versions,
} from "./model";

const { mass: kg } = quantitiesIn(METRIC);
const { mass: lb } = quantitiesIn({ mass: "lb" });

const curl = {
  item: {
    exercise: "db-curl",
    name: "Curl",
    region: "biceps.long",
    sets: 2,
    reps: [8, 12],
    reserve: 1,
    rest_s: 60,
    scheme: "straight",
    order: 1,
    sides: "left-first",
    extra_sets_weaker: 1,
    progression: { step_kg: 2 },
  },
  target: { kind: "count", load_kg: 12, counts: [10, 9], why: "" },
  instead: [
    { exercise: "cable-curl", name: "Cable", loads_joint: ["elbow"], seconds: false },
    { exercise: "dead-hang", name: "Hang", loads_joint: [], seconds: true },
  ],
} as unknown as Item;

const both = { ...curl, item: { ...curl.item, sides: "both", extra_sets_weaker: 0 } } as Item;
const set = (number: number, side: LogSet["side"], load_kg: number, reps: number): LogSet => ({
  number,
  side,
  load_kg,
  reps,
});
const part = (change: Partial<ExercisePart>): ExercisePart => ({
  kind: "exercise",
  exercise: "db-curl",
  position: 1,
  scheme: "straight",
  sets: [],
  ...change,
});

describe("sides", () => {
  test("the weaker side is asked first in every set, and its extra set comes last", () => {
    expect(rowsOf(curl).map(({ number, side }) => `${number}${side?.[0]}`)).toEqual([
      "1l",
      "1r",
      "2l",
      "2r",
      "3l",
    ]);
    expect(rowsOf(both)).toEqual([{ number: 1 }, { number: 2 }]);
  });

  test("the stronger side starts from what the weaker one did and goes no further", () => {
    const sets = [set(1, "left", 12, 9)];
    const right = { number: 1, side: "right" as const };
    expect(startOf(curl, right, sets)).toMatchObject({ load_kg: 12, count: 9 });
    expect(capped({ load_kg: 16, count: 12 }, heldTo(curl, right, sets))).toEqual({ load_kg: 12, count: 9 });
    expect(capped({ load_kg: 10, count: 8 }, heldTo(curl, right, sets))).toEqual({ load_kg: 10, count: 8 });
  });

  test("the weaker side is held to nothing", () => {
    expect(heldTo(curl, { number: 1, side: "left" }, [set(1, "right", 20, 20)])).toBeUndefined();
  });
});

describe("a set", () => {
  test.each([
    ["the first from the target", [], { number: 1 }, { load_kg: 12, count: 10 }],
    [
      "the next with the load just lifted",
      [set(1, undefined, 14, 8)],
      { number: 2 },
      { load_kg: 14, count: 9 },
    ],
    ["one past the target like its last", [], { number: 3 }, { load_kg: 12, count: 9 }],
  ])("starts: %s", (_, sets, row, expected) => {
    expect(startOf(both, row, sets)).toMatchObject(expected);
  });

  test("the next one is the first that was not done", () => {
    expect(nextRow(rowsOf(both), [set(1, undefined, 12, 10)])).toEqual({ number: 2 });
    expect(nextRow(rowsOf(both), [set(1, undefined, 12, 10), set(2, undefined, 12, 9)])).toBeUndefined();
  });

  test.each([
    [true, { seconds: 30, reps: undefined, reserve: undefined }],
    [false, { reps: 30, seconds: undefined, reserve: 1 }],
  ])("is written in seconds: %s", (seconds, expected) => {
    expect(loggedSet({ number: 1 }, { count: 30, reserve: 1 }, seconds)).toMatchObject(expected);
  });

  test("loads go in the exercise's own steps and never below nothing", () => {
    expect(stepOf(kg, curl, 12)).toBe(2);
    const free = { ...curl, item: { ...curl.item, progression: {} } } as Item;
    expect([stepOf(kg, free, 6), stepOf(kg, free, 40)]).toEqual([1, 2.5]);
    expect([stepped(kg, 12.5, 2.5), stepped(kg, 2, -2), stepped(kg, undefined, 2.5)]).toEqual([
      15,
      undefined,
      2.5,
    ]);
  });

  test("in pounds they go in whole steps of pounds", () => {
    const free = { ...curl, item: { ...curl.item, progression: {} } } as Item;
    expect([stepOf(lb, free, 6), stepOf(lb, free, 40)]).toEqual([2.5, 5]);
    const five = { ...curl, item: { ...curl.item, progression: { step_kg: 2.26796185 } } } as Item;
    expect(stepOf(lb, five, 20)).toBe(5);
    // 45 lb and one step are 50 lb, not 49.99.
    expect(lb.typed(stepped(lb, lb.from(45), 5) ?? 0)).toBe("50");
  });

  test("a set is told in the client's own unit", () => {
    expect(setsText(lb, [set(1, undefined, lb.from(45), 10)])).toBe("45 lb × 10");
    expect(setsText(lb, [set(1, undefined, 20, 10)])).toBe("44.1 lb × 10");
  });
});

describe("pain", () => {
  const pain = (level: number, more = {}) => ({ area: "elbow", level, ...more });
  test.each([
    ["2 of 10 goes on", part({ pain: pain(2) }), false],
    ["3 of 10 stops", part({ pain: pain(3) }), true],
    [
      "what was swapped in for it goes on",
      part({ instead: "cable-curl", pain: pain(5, { during: "db-curl" }) }),
      false,
    ],
    [
      "a sign for a doctor stops that too",
      part({ instead: "cable-curl", pain: pain(0, { during: "db-curl", red_flags: ["numbness"] }) }),
      true,
    ],
  ])("%s", (_, logged, expected) => {
    expect(isStopped(logged)).toBe(expected);
    if (expected) expect(isDone(both, logged)).toBe(true);
  });

  test("nothing is offered that loads the joint that hurts", () => {
    expect(swapsFor(curl, pain(4)).map(({ exercise }) => exercise)).toEqual(["dead-hang"]);
    expect(swapsFor(curl)).toHaveLength(2);
  });
});

describe("versions", () => {
  const view = (id: string, follows: string[] = [], change: Partial<Entry> = {}): EntryView => ({
    entry: {
      id,
      follows,
      plan: "p",
      week: 1,
      day: 1,
      trained_on: "2026-03-02",
      at: "2026-03-02T18:00:00Z",
      part: part({}),
      ...change,
    },
    written_by: "",
    written_at: "",
  });

  test.each([
    ["a correction follows", [view("a"), view("b", ["a"])], ["b"]],
    ["two that did not see each other stand side by side", [view("a"), view("b")], ["a", "b"]],
    ["the same one twice is one", [view("a"), view("a")], ["a"]],
  ])("%s", (_, entries, ids) => {
    expect(heads(entries).map(({ entry }) => entry.id)).toEqual(ids);
  });

  test("what is not sent yet lies over what the studio has, of this session alone", () => {
    const local = [view("b", ["a"]), view("c", [], { week: 2 })];
    const found = versions([view("a")], local, { plan: "p", week: 1, day: 1 }, "db-curl");
    expect(found.map(({ entry }) => entry.id)).toEqual(["b"]);
  });
});

// Common practice, no source.
test.each([
  ["timed", { seconds: [45, 45] }, { kind: "count-down", seconds: 45 }],
  ["ladder", {}, { kind: "ladder" }],
  ["straight", {}, undefined],
  ["straight", { seconds: [20, 30] }, { kind: "count-down", seconds: 30 }],
])("the scheme %s with %j has its clock", (scheme, change, clock) => {
  expect(clockOf({ ...both, item: { ...both.item, scheme, ...change } } as Item)).toEqual(clock);
});

test("a set that differs has its own load and what is left after it", () => {
  const per_set = [
    { number: 1, reps: [8, 12], reserve: 0, load_pct: 100 },
    { number: 2, reps: [8, 12], reserve: 2, load_pct: 85 },
  ];
  const item = {
    ...both,
    item: { ...both.item, per_set },
    target: { ...both.target, loads_kg: [20, 16] },
  } as Item;
  const start = (number: number) => startOf(item, { number }, []);
  expect([start(1), start(2)]).toEqual([
    { load_kg: 20, count: 10, reserve: 0 },
    { load_kg: 16, count: 9, reserve: 2 },
  ]);
});

test.each([
  ["ten times the last", 120, 12],
  ["nine times", 108, undefined],
  ["ten times the help", -120, 12],
])("a load that is %s", (_, load_kg, most) => {
  const known = [set(1, undefined, 12, 10)];
  expect(farFrom(undefined, known, load_kg)).toBe(most);
});

test("a week that was kept by an earlier page gets what it did not know of", () => {
  const { forms, variants, run, ...old } = { ...both } as never as Record<string, never>;
  const [session] = completed({ sessions: [{ items: [old] }] } as never).sessions;
  expect([session?.run, session?.items[0]?.forms, session?.items[0]?.lighter_sets]).toEqual([[], [], 1]);
  expect([forms, variants, run]).toEqual([undefined, undefined, undefined]);
});

test("a ladder of four rungs is ten repetitions", () => {
  expect(ladderReps(4)).toBe(10);
});

test.each([
  [65, "1:05"],
  [0.2, "0:01"],
  [-3, "0:00"],
])("%f s are shown as %s", (seconds, text) => {
  expect(clockText(seconds)).toBe(text);
});

test("sets stand in a line, the load once where it stays the same", () => {
  expect(setsText(kg, [set(1, undefined, 12, 10), set(2, undefined, 12, 9)])).toBe("12 kg × 10, 9");
  expect(setsText(kg, [set(1, undefined, 12, 10), set(2, undefined, 10, 9)])).toBe("12 kg × 10, 10 kg × 9");
  expect(setsText(kg, [set(1, "left", 12, 10), set(1, "right", 12, 9)], "right")).toBe("12 kg × 9");
});
