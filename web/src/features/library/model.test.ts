import { expect, test } from "vitest";
import type { Atlas } from "../../shared/api/atlas";
import { draftOf, emptyDraft, exerciseOf, filtered, idOf, targetsOf } from "./model";

const exercise = (id: string, name: string, targets: Record<string, number>, more: object = {}) => ({
  id,
  name,
  targets,
  hardest: ["M"],
  stretch: 1,
  equipment: ["dumbbell"],
  ...more,
});
const atlas = {
  kits: [{ id: "home", items: ["dumbbell"] }],
  equipment: [{ id: "bodyweight", always: true }, { id: "dumbbell" }, { id: "cable" }],
  exercises: [
    exercise("press", "Flat press", { chest: 1, triceps: 0.5 }),
    exercise(
      "extension",
      "Overhead extension",
      { triceps: 1 },
      { hardest: ["L"], stretch: 3, equipment: ["cable"] },
    ),
    exercise("pushup", "Push-up", { chest: 1 }, { equipment: ["bodyweight"] }),
  ],
} as unknown as Atlas;
const everything = { find: "", stretched: false };
const ids = (change: object) => filtered(atlas, { ...everything, ...change }).map(({ id }) => id);

test.each([
  ["everything", {}, ["press", "extension", "pushup"]],
  ["a region, its main targets first", { region: "triceps" }, ["extension", "press"]],
  ["where it is hardest", { hardest: "L" }, ["extension"]],
  ["what stretches", { stretched: true }, ["extension"]],
  ["a kit, and what needs nothing", { kit: "home" }, ["press", "pushup"]],
  ["words of the name, in any order", { find: "press FLAT" }, ["press"]],
  ["nothing", { find: "rowing" }, []],
])("the library is filtered by %s", (_, filter, expected) => {
  expect(ids(filter)).toEqual(expected);
});

test.each([
  ["Tempo row, slow", "own-tempo-row-slow"],
  ["  Überzug!  ", "own-uberzug"],
  ["日本", "own-exercise"],
])("%s gets the id %s", (name, id) => {
  expect(idOf(name)).toBe(id);
});

test("an own exercise is sent as written and read back the same", () => {
  const draft = {
    ...emptyDraft,
    name: "Tempo row",
    main: ["lats.upper"],
    half: ["biceps.short"],
    equipment: ["cable"],
    setUp: "Sit tall.",
    cues: "Pull slowly.\n\nStop at the body.",
    joints: ["shoulder"],
  };
  const sent = exerciseOf(draft, "");
  expect(sent.targets).toEqual({ "biceps.short": 0.5, "lats.upper": 1 });
  expect(sent.cues).toEqual(["Pull slowly.", "Stop at the body."]);
  expect(sent.reps).toEqual([8, 12]);
  const again = exerciseOf(draftOf(sent), "", sent);
  expect(again).toEqual(sent);
});

test("what is no number goes out as 0, so that the server says what is wrong", () => {
  expect(exerciseOf({ ...emptyDraft, low: "ten" }, "").reps).toEqual([0, 12]);
});

test("main targets are named first", () => {
  expect(targetsOf({ targets: { a: 0.25, b: 1, c: 0.5 } }).map(([region]) => region)).toEqual([
    "b",
    "c",
    "a",
  ]);
});
