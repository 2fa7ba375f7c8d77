import { expect, test } from "vitest";
import { groupMark, joined, lettered, parted, runs, together, withPartners } from "./groups";
import type { Week } from "./model";

/** A day of cards such as `press A` (in group A) or `row` (by itself). */
const week = (...days: string[][]): Week => ({
  minutes: 60,
  weeks: 6,
  bring_up: [],
  sessions: days.map((cards, index) => ({
    day: index + 1,
    items: cards.map((card) => {
      const [exercise, group] = card.split(" ") as [string, string?];
      return { exercise, sets: 3, group };
    }),
  })),
});
const cards = (changed: Week, session = 0) =>
  changed.sessions[session]?.items.map(({ exercise, group }) => [exercise, group].filter(Boolean).join(" "));

test.each([
  ["two by themselves", ["a", "b", "c"], 0, ["a A", "b A", "c"]],
  ["one more to a group", ["a A", "b A", "c"], 1, ["a A", "b A", "c A"]],
  ["two groups become one", ["a A", "b A", "c B", "d B"], 1, ["a A", "b A", "c A", "d A"]],
  ["only from the end of a group", ["a A", "b A", "c"], 0, ["a A", "b A", "c"]],
  ["no more than four", ["a A", "b A", "c A", "d A", "e"], 3, ["a A", "b A", "c A", "d A", "e"]],
])("joined: %s", (_, before, place, after) => {
  expect(cards(joined(week(before), { session: 0, place }))).toEqual(after);
});

test.each([
  ["of two both are alone", ["a A", "b A"], 0, ["a", "b"]],
  ["of three the others stay together", ["a A", "b A", "c A"], 0, ["a", "b A", "c A"]],
  ["from the middle all part", ["a A", "b A", "c A"], 1, ["a", "b", "c"]],
])("parted: %s", (_, before, place, after) => {
  expect(cards(parted(week(before), { session: 0, place }))).toEqual(after);
});

test("a card is brought behind another of another day", () => {
  const changed = together(week(["a", "b"], ["c", "d"]), { session: 1, place: 1 }, { session: 0, place: 0 });
  expect([cards(changed), cards(changed, 1)]).toEqual([["a A", "d A", "b"], ["c"]]);
});

test("letters follow the order of the day, and what stands alone has none", () => {
  const items = week(["a B", "b", "c C", "d C", "e A", "f A"]).sessions[0]?.items ?? [];
  expect(lettered(items).map(({ group }) => group)).toEqual([undefined, undefined, "A", "A", "B", "B"]);
});

test("a proven group is put in after its first card, with what stands there already brought to it", () => {
  const changed = withPartners(week(["x", "rope", "pull"]), { session: 0, place: 1 }, ["navel", "pull"]);
  expect(cards(changed)).toEqual(["x", "rope A", "navel A", "pull A"]);
});

test("places of a group have their mark", () => {
  const items = week(["x", "a A", "b A"]).sessions[0]?.items ?? [];
  expect(items.map((_, place) => groupMark(items, place))).toEqual([undefined, "A1", "A2"]);
  expect(runs(items).map(({ from, to }) => [from, to])).toEqual([
    [0, 1],
    [1, 3],
  ]);
});
