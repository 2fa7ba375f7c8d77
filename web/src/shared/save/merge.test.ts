import { expect, test } from "vitest";
import { merged, same } from "./merge";

const base = { texts: { calf: "36", waist: "80" }, holder: "MT" };

test.each([
  ["only here", { texts: { calf: "37", waist: "80" }, holder: "MT" }, base, { calf: "37", waist: "80" }],
  ["only there", base, { texts: { calf: "36", waist: "81" }, holder: "MT" }, { calf: "36", waist: "81" }],
  [
    "one field each",
    { texts: { calf: "37", waist: "80" }, holder: "MT" },
    { texts: { calf: "36", waist: "81" }, holder: "MT" },
    { calf: "37", waist: "81" },
  ],
  [
    "the same in both",
    { texts: { calf: "37", waist: "80" }, holder: "MT" },
    { texts: { calf: "37", waist: "80" }, holder: "MT" },
    { calf: "37", waist: "80" },
  ],
  [
    "taken out here, added there",
    { texts: { waist: "80" }, holder: "MT" },
    { texts: { calf: "36", waist: "80", hip: "95" }, holder: "MT" },
    { waist: "80", hip: "95" },
  ],
])("what was changed %s is there without asking", (_, mine, theirs, texts) => {
  const both = merged<unknown>(base, mine, theirs);
  expect(both.clashes).toEqual([]);
  expect(both.mine).toEqual({ texts, holder: "MT" });
});

test("a field that both changed is named with both values, and everything else of both is kept either way", () => {
  const mine = { texts: { calf: "37", waist: "80" }, holder: "MT" };
  const theirs = { texts: { calf: "38", waist: "80" }, holder: "JO" };
  const both = merged(base, mine, theirs);
  expect(both.clashes).toEqual([{ path: ["texts", "calf"], mine: "37", theirs: "38" }]);
  expect(both.mine).toEqual({ texts: { calf: "37", waist: "80" }, holder: "JO" });
  expect(both.theirs).toEqual({ texts: { calf: "38", waist: "80" }, holder: "JO" });
});

test("lists are one value: a place in a list means nothing once another was taken out", () => {
  const both = merged({ list: [1, 2] }, { list: [1] }, { list: [1, 2, 3] });
  expect(both.clashes).toEqual([{ path: ["list"], mine: [1], theirs: [1, 2, 3] }]);
});

test("answers that were given together stay together", () => {
  const [before, mine, theirs] = [
    { asked: { on: "1", yes: ["a"] } },
    { asked: { on: "2", yes: ["a"] } },
    { asked: { on: "1", yes: [] } },
  ];
  expect(merged<unknown>(before, mine, theirs).clashes).toEqual([]);
  expect(merged<unknown>(before, mine, theirs, ["asked"]).clashes).toMatchObject([{ path: ["asked"] }]);
});

test("a missing field is one without a value, and order does not matter", () => {
  expect(same({ a: 1, b: undefined }, { a: 1 })).toBe(true);
  expect(same({ a: 1, b: 2 }, { b: 2, a: 1 })).toBe(true);
  expect(same({ a: [1] }, { a: { 0: 1 } })).toBe(false);
});
