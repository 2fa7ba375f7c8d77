import { describe, expect, test } from "vitest";
import {
  clock,
  differing,
  mainRegions,
  newStrength,
  problemsByRow,
  type TestEntry,
  typed,
  typingOf,
} from "./model";
import { differing as screensDiffer, screensOf, typingOf as screenTyping } from "./screens";

const STORED: TestEntry[] = [
  {
    kind: "one-side",
    exercise: "db-curl",
    left: { load_kg: 14, reps: 9 },
    right: { load_kg: 14.5, reps: 12 },
  },
  { kind: "hang", seconds: 84 },
  { kind: "feel", exercise: "one-arm-hip-row", region: "lats.lower", felt: "biceps.short" },
];

test("stored tests come back as they were sent", () => {
  expect(typed(typingOf(STORED)).tests).toEqual(STORED);
});

describe("what is typed", () => {
  const half = { ...newStrength("db-curl"), left: { load: "14,5", reps: "9" } };

  test("waits in its row until both sides are there", () => {
    const { tests, unfinished } = typed({ strength: [half], hang: "", feel: [] });
    expect([tests, unfinished]).toEqual([[], ["strength 0"]]);
  });

  test.each([
    ["half a repetition", { load: "14", reps: "9.5" }],
    ["no number", { load: "heavy", reps: "9" }],
  ])("%s is no set", (_, right) => {
    expect(typed({ strength: [{ ...half, right }], hang: "", feel: [] }).tests).toEqual([]);
  });

  test("a comma is a decimal point", () => {
    const whole = { ...half, right: { load: "14.5", reps: "10" } };
    expect(typed({ strength: [whole], hang: "83,5", feel: [] }).tests).toEqual([
      {
        kind: "one-side",
        exercise: "db-curl",
        left: { load_kg: 14.5, reps: 9 },
        right: { load_kg: 14.5, reps: 10 },
      },
      { kind: "hang", seconds: 83.5 },
    ]);
  });

  test("a refusal stands at the row it comes from, past rows that were not sent", () => {
    const sent = typed({ strength: [half], hang: "9999", feel: [] });
    expect(problemsByRow([{ pointer: "/tests/0/seconds", says: "a hang of 9999 s" }], sent)).toEqual({
      hang: ["a hang of 9999 s"],
    });
  });
});

test("two sheets differ by their tests, not by what is unfinished", () => {
  const mine = typingOf(STORED);
  expect(differing(mine, { ...mine, strength: [...mine.strength, newStrength("x")] })).toBe(0);
  expect(differing(mine, { ...mine, hang: "90" })).toBe(1);
});

test.each([
  [0, "0:00"],
  [59.9, "0:59"],
  [84, "1:24"],
])("%d seconds on the clock are %s", (seconds, shown) => {
  expect(clock(seconds)).toBe(shown);
});

test("an exercise's main regions are those with a whole share", () => {
  expect(mainRegions({ targets: { "biceps.long": 1, brachialis: 0.5 } } as never)).toEqual(["biceps.long"]);
});

test("a range counts once both sides are there", () => {
  const ids = ["hip_flexion", "ankle_dorsiflexion"];
  const typing = screenTyping({ hip_flexion_deg: { left: 120, right: 118 }, blades_retract: false }, ids);
  expect(screensOf(typing, ids).screens).toEqual({
    hip_flexion_deg: { left: 120, right: 118 },
    blades_retract: false,
  });
  const begun = { ...typing, texts: { ...typing.texts, "ankle_dorsiflexion|left": "35" } };
  expect(screensOf(begun, ids).unfinished).toEqual(["ankle_dorsiflexion"]);
  expect(screensDiffer(begun, typing, ids)).toBe(0);
});
