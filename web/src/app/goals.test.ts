import { expect, test } from "vitest";
import { answering, type Goal } from "./goals";

const goal = (kind: Goal["kind"], name: string): Goal => ({ id: name, name, kind, to: "/" });
const goals = [
  goal("page", "Practice"),
  goal("act", "Night"),
  goal("client", "Zoë Fenwick"),
  goal("exercise", "Incline press"),
  goal("exercise", "Press-up"),
  goal("exercise", "Compressed fly"),
];
const names = (typed: string, most = 9) => answering(goals, typed, most).map(({ name }) => name);

test.each([
  [
    "a beginning comes before a word, a word before a middle",
    "press",
    ["Press-up", "Incline press", "Compressed fly"],
  ],
  ["accents and case make no difference", "ZOE", ["Zoë Fenwick"]],
  ["a last name is a beginning of a word", "fen", ["Zoë Fenwick"]],
  ["nothing answers nonsense", "qqq", []],
  ["before anything is typed there are pages and acts", " ", ["Practice", "Night"]],
])("%s", (_, typed, found) => {
  expect(names(typed)).toEqual(found);
});

test("no more are given than asked for", () => {
  expect(names("press", 2)).toHaveLength(2);
});
