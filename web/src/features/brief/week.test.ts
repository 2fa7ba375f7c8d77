import { expect, test } from "vitest";
import { differing, emptyWeek, lastWeek, newExercise, problemsByRow } from "./week";

test("the last week that is over ends before this one, over a year's end too", () => {
  expect(lastWeek("2026-03-02")).toBe("2026-02-23");
  expect(lastWeek("2026-01-03")).toBe("2025-12-27");
});

test("an exercise added goes into the session of the one before", () => {
  const first = newExercise([], "bench-press");
  expect(first).toMatchObject({ session: 1, sets: 3, one_sided: false });
  expect(newExercise([{ ...first, session: 3 }], "bb-curl").session).toBe(3);
});

test("a week differs from another by rows, by its length and by being there at all", () => {
  const week = { ...emptyWeek("2026-02-23"), exercises: [newExercise([], "bench-press")] };
  expect(differing({ week }, {})).toBe(1);
  expect(differing({ week }, { week: { ...week, weeks: 6, exercises: [] } })).toBe(2);
  expect(differing({ week }, { week: structuredClone(week) })).toBe(0);
});

test("a problem stands at its row, or at the week's own fields", () => {
  const problems = [
    { pointer: "/week/exercises/1/sets", says: "sets 0" },
    { pointer: "/week/until", says: "after today" },
  ];
  expect(problemsByRow(problems)).toEqual({ 1: "sets 0", until: "after today" });
});
