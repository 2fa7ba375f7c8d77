import { expect, test } from "vitest";
import {
  added,
  beside,
  brokenAt,
  cardAt,
  changed,
  differences,
  differing,
  firstSide,
  type Item,
  type LedgerRow,
  ledgerEnd,
  lockedCount,
  moved,
  nextMonday,
  onDay,
  type Plan,
  pairingsOf,
  partGroups,
  spotOf,
  standing,
  thisMonday,
  type Week,
  without,
  withSets,
} from "./model";

const row = (region: string, change: Partial<LedgerRow> = {}): LedgerRow => ({
  region,
  class: "keep",
  low: 3,
  aim: 5,
  high: 8,
  direct: 0,
  indirect: 0,
  total: 0,
  ...change,
});

test("the ledger goes by part, each region in its own, and what is in none comes last", () => {
  const ledger = [row("a"), row("b", { class: "bring-up" }), row("c")];
  const parts = [
    { part: "chest" as const, regions: ["c"], sets: 4, floor: 4 },
    { part: "lats" as const, regions: ["b"], sets: 9, floor: 4 },
  ];
  const groups = partGroups({ ledger, parts });
  expect(groups.map(({ row, regions }) => [row?.part, regions.map(({ region }) => region)])).toEqual([
    ["chest", ["c"]],
    ["lats", ["b"]],
    [undefined, ["a"]],
  ]);
  expect(groups.map(({ chosen }) => chosen)).toEqual([false, true, false]);
  expect(partGroups({ ledger: [], parts: [] })).toEqual([]);
});

test("in a turned week the other exercise stands in a card's place, with its own scheme and nothing written", () => {
  const card = { exercise: "one", sets: 3, written: { load_kg: 20 } };
  const other = { exercise: "two", scheme: "drop" } as Item;
  const item = { exercise: "one", in_turn: other } as Item;
  const weekOf = (turned: boolean) => ({ number: 2, lighter: false, turned, sets: [], doses: {}, says: [] });
  expect(standing(card, item, weekOf(true))).toEqual({
    card: { exercise: "two", sets: 3, group: undefined, scheme: "drop" },
    item: other,
  });
  expect(standing(card, item, weekOf(false))).toEqual({ card, item });
});

test("a chosen region's card opens its day, another closes it", () => {
  const cards = (opens: boolean) =>
    added(week(), 0, "new", opens).sessions[0]?.items.map(({ exercise }) => exercise);
  expect(cards(true)?.[0]).toBe("new");
  expect(cards(false)?.at(-1)).toBe("new");
});

test("a card is found by its exercise, wherever it stands", () => {
  const [first] = week().sessions[0]?.items ?? [];
  expect(spotOf(week(), first?.exercise ?? "")).toEqual({ session: 0, place: 0 });
  expect(spotOf(week(), "nowhere")).toBeUndefined();
});

test.each([
  ["2026-11-29", "2026-11-23"],
  ["2026-11-23", "2026-11-23"],
])("the week of %s begins on %s", (day, monday) => {
  expect(thisMonday(new Date(`${day}T12:00:00`))).toBe(monday);
});

test("bars have room for the fullest row", () => {
  expect(ledgerEnd([row("a", { total: 26 })])).toBe(26);
  expect(ledgerEnd([row("a")])).toBe(20);
});

test.each([
  ["both", undefined],
  ["left-first", "left"],
  ["right-first", "right"],
] as const)("sides %s start with %s", (sides, side) => {
  expect(firstSide({ sides } as Item)).toBe(side);
});

const week = (): Week => ({
  minutes: 60,
  weeks: 6,
  bring_up: [],
  sessions: [
    {
      day: 1,
      items: [
        { exercise: "a", sets: 3 },
        { exercise: "b", sets: 4 },
        { exercise: "c", sets: 2 },
      ],
    },
    {
      day: 4,
      items: [
        { exercise: "d", sets: 3 },
        { exercise: "a", sets: 2 },
      ],
    },
  ],
});
const order = (week: Week) =>
  week.sessions.map(({ items }) => items.map(({ exercise }) => exercise).join(""));

test.each([
  ["down within its day", { session: 0, place: 0 }, { session: 0, place: 2 }, ["bca", "da"]],
  ["up within its day", { session: 0, place: 2 }, { session: 0, place: 0 }, ["cab", "da"]],
  ["to another day", { session: 0, place: 1 }, { session: 1, place: 1 }, ["ac", "dba"]],
  ["to the end of another day", { session: 0, place: 2 }, { session: 1, place: 2 }, ["ab", "dac"]],
  ["nowhere: that day has it already", { session: 0, place: 0 }, { session: 1, place: 0 }, ["abc", "da"]],
  ["nowhere: there is no such day", { session: 0, place: 0 }, { session: 5, place: 0 }, ["abc", "da"]],
])("a card moves %s", (_, from, to, expected) => {
  expect(order(moved(week(), from, to))).toEqual(expected);
});

test.each([
  ["up", { session: 0, place: 1 }, { session: 0, place: 0 }],
  ["up", { session: 0, place: 0 }, undefined],
  ["down", { session: 0, place: 2 }, undefined],
  ["right", { session: 0, place: 2 }, { session: 1, place: 2 }],
  ["left", { session: 1, place: 1 }, { session: 0, place: 1 }],
  ["left", { session: 0, place: 0 }, undefined],
] as const)("one step %s from %o is %o", (step, from, to) => {
  expect(beside(week(), from, step)).toEqual(to);
});

test("sets stay within what a card may have", () => {
  const spot = { session: 0, place: 2 };
  expect(cardAt(withSets(week(), spot, 1), spot)?.sets).toBe(3);
  expect(cardAt(withSets(week(), spot, -5), spot)?.sets).toBe(1);
  expect(cardAt(withSets(week(), spot, 50), spot)?.sets).toBe(10);
});

test("a card is added once to a day, locked, and taken out", () => {
  expect(order(added(week(), 1, "a"))).toEqual(["abc", "da"]);
  expect(order(added(week(), 1, "e"))).toEqual(["abc", "dae"]);
  expect(lockedCount(changed(week(), { session: 0, place: 0 }, { locked: true }))).toBe(1);
  expect(order(without(week(), { session: 0, place: 1 }))).toEqual(["ac", "da"]);
});

test("a day goes to a free weekday and the days stay in order", () => {
  const later = onDay(week(), 0, 6);
  expect(later.sessions.map(({ day }) => day)).toEqual([4, 6]);
  expect(order(later)).toEqual(["da", "abc"]);
  expect(onDay(week(), 0, 4)).toEqual(week());
});

test("two weeks differ by day and exercise, and in nothing but what differs", () => {
  const other = withSets(without(week(), { session: 1, place: 0 }), { session: 0, place: 0 }, 1);
  expect(differences(week(), other)).toEqual([
    { day: 1, exercise: "a", before: 3, now: 4 },
    { day: 4, exercise: "d", before: 3, now: 0 },
  ]);
  expect(differing(week(), week())).toBe(0);
  expect(differing(week(), other)).toBeGreaterThan(0);
});

test("the broken rules of a card are those that name it on its day", () => {
  const plan = {
    broken: [
      { says: "one", cards: [{ session: 0, exercise: "a" }], days: [1], forbids: false },
      { says: "two", cards: [{ session: 1, exercise: "a" }], days: [4], forbids: false },
    ],
  } as unknown as Plan;
  expect(brokenAt(plan, 0, "a")).toEqual(["one"]);
  expect(brokenAt(plan, 0, "b")).toEqual([]);
});

test("what goes well straight after an exercise is the next of its pairing", () => {
  const pairings = [
    { exercises: ["press", "fly"], why: "Then the fly." },
    { exercises: ["a", "b", "c"], why: "Three heights." },
  ];
  expect(pairingsOf({ pairings }, "press")).toEqual([{ next: ["fly"], why: "Then the fly." }]);
  expect(pairingsOf({ pairings }, "b")).toEqual([{ next: ["c"], why: "Three heights." }]);
  expect(pairingsOf({ pairings }, "c")).toEqual([]);
});

test.each([
  ["2026-11-25", "2026-11-30"],
  ["2026-11-30", "2026-12-07"],
  ["2026-11-29", "2026-11-30"],
])("the Monday after %s is %s", (today, monday) => {
  expect(nextMonday(new Date(`${today}T12:00:00`))).toBe(monday);
});
