import { describe, expect, test } from "vitest";
import { cell, differing, parseCm, problemsByCell, type Site, textsOf, typed } from "./model";

const site = (id: string, paired: boolean): Site => ({
  id,
  name: id,
  kind: "girth",
  paired,
  bounds: [10, 80],
  level: "",
  muscle: true,
});
const SITES = [site("waist", false), site("calf", true)];

test.each([
  ["37.4", 37.4],
  [" 37,4 ", 37.4],
  ["37", 37],
  ["37.4.1", undefined],
  ["3x", undefined],
  ["-3", undefined],
])("%j is read as %s cm", (text, value) => {
  expect(parseCm(text)).toBe(value);
});

describe("a typed sheet", () => {
  const texts = {
    [cell("waist", undefined, 0)]: "81,5",
    [cell("calf", "left", 0)]: "37.0",
    [cell("calf", "left", 1)]: "abc",
    [cell("calf", "left", 2)]: "37.2",
  };

  test("becomes entries, without the cells that are no numbers", () => {
    const { entries, unreadable } = typed(SITES, texts);
    expect(entries).toEqual([
      { site: "waist", readings_cm: [81.5] },
      { site: "calf", side: "left", readings_cm: [37, 37.2] },
    ]);
    expect(unreadable).toEqual([cell("calf", "left", 1)]);
  });

  test("gets the server's problems at the cells they concern, past the cells left out", () => {
    const { cells } = typed(SITES, texts);
    const problems = [
      { pointer: "/entries/1/readings_cm/1", says: "too large" },
      { pointer: "/entries/0", says: "twice" },
    ];
    expect(problemsByCell(problems, cells)).toEqual({
      [cell("calf", "left", 2)]: "too large",
      [cell("waist", undefined, 0)]: "twice",
    });
  });
});

test("stored readings show as they were typed", () => {
  expect(textsOf([{ site: "calf", side: "left", readings_cm: [37.1, 37] }])).toEqual({
    [cell("calf", "left", 0)]: "37.1",
    [cell("calf", "left", 1)]: "37.0",
  });
});

test("two sheets differ where either has other readings", () => {
  const mine = [{ site: "waist", readings_cm: [81] }];
  const theirs = [
    { site: "waist", readings_cm: [82] },
    { site: "neck", readings_cm: [38] },
  ];
  expect(differing(mine, theirs)).toBe(2);
});
