import { describe, expect, test } from "vitest";
import { parseNumber } from "../../shared/format";
import {
  cell,
  differing,
  type Fold,
  levelCell,
  ordered,
  placeOfFold,
  placeOfSite,
  problemsByCell,
  type Sheet,
  type Site,
  typed,
  typingOf,
  WEIGHT,
} from "./model";
import { moved } from "./order";

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
const triceps = { id: "triceps", name: "Triceps fold", level: "", limb: true, bounds_mm: [2, 80] } as Fold;
const PLACES = [...SITES.map(placeOfSite), placeOfFold(triceps, [])];

test.each([
  ["37.4", 37.4],
  [" 37,4 ", 37.4],
  ["37", 37],
  ["37.4.1", undefined],
  ["3x", undefined],
  ["-3", undefined],
])("%j is read as %s", (text, value) => {
  expect(parseNumber(text)).toBe(value);
});

describe("a typed sheet", () => {
  const texts = {
    [cell("waist", undefined, 0)]: "81,5",
    [cell("calf", "left", 0)]: "37.0",
    [cell("calf", "left", 1)]: "abc",
    [cell("calf", "left", 2)]: "37.2",
    [cell("fold:triceps", "right", 0)]: "8,2",
    [levelCell("calf")]: "24.5",
    [WEIGHT]: "71,3",
  };
  const sent = () => typed(PLACES, SITES, { texts, holder: "MT" });

  test("becomes what the server is sent, without the cells that are no numbers", () => {
    const { body, unreadable } = sent();
    expect(body).toEqual({
      measured_by: "MT",
      weight_kg: 71.3,
      entries: [
        { site: "waist", readings_cm: [81.5] },
        { site: "calf", side: "left", readings_cm: [37, 37.2] },
      ],
      folds: [{ site: "triceps", side: "right", readings_mm: [8.2] }],
      levels_cm: { calf: 24.5 },
    });
    expect(unreadable).toEqual([cell("calf", "left", 1)]);
  });

  test.each([
    ["/entries/1/readings_cm/1", cell("calf", "left", 2)],
    ["/entries/0", cell("waist", undefined, 0)],
    ["/folds/0/readings_mm/0", cell("fold:triceps", "right", 0)],
    ["/levels_cm/calf", levelCell("calf")],
    ["/weight_kg", WEIGHT],
  ])("gets the server's problem at %s at its cell, past the cells left out", (pointer, at) => {
    expect(problemsByCell([{ pointer, says: "no" }], sent())).toEqual({ [at]: "no" });
  });
});

test("a stored sheet shows as it was typed", () => {
  const sheet = {
    measured_by: "MT",
    weight_kg: 71,
    entries: [{ site: "calf", side: "left", readings_cm: [37.1, 37] }],
    folds: [{ site: "triceps", side: "right", readings_mm: [8.2] }],
    levels_cm: { calf: 24 },
  } as unknown as Sheet;
  expect(typingOf(sheet)).toEqual({
    holder: "MT",
    texts: {
      [cell("calf", "left", 0)]: "37.1",
      [cell("calf", "left", 1)]: "37.0",
      [cell("fold:triceps", "right", 0)]: "8.2",
      [levelCell("calf")]: "24.0",
      [WEIGHT]: "71.0",
    },
  });
});

test("two sheets differ where either has something else, however it is written", () => {
  const mine = { holder: "MT", texts: { "waist||0": "81", "neck||0": "38,0" } };
  const theirs = { holder: "JV", texts: { "waist||0": "82", "neck||0": "38", "hip||0": "97" } };
  expect(differing(mine, theirs)).toBe(3);
});

test("a fold whose side nobody noted keeps one field", () => {
  expect(placeOfFold(triceps, [{ site: "triceps", readings_mm: [8] }]).sides).toEqual([undefined]);
  expect(placeOfFold(triceps, []).sides).toEqual(["left", "right"]);
});

test("lines come in the coach's order, without what is left out unless something is stored there", () => {
  const order = { sites: ["calf", "waist"], left_out: ["waist"] };
  const ids = (texts: Record<string, string>) => ordered(SITES, order, texts).map(({ id }) => id);
  expect(ids({})).toEqual(["calf"]);
  expect(ids({ "waist||0": "81" })).toEqual(["calf", "waist"]);
});

test.each([
  ["b", -1, ["b", "a", "c"]],
  ["b", 1, ["a", "c", "b"]],
  ["a", -1, ["a", "b", "c"]],
  ["c", 1, ["a", "b", "c"]],
] as const)("%s moved by %i", (id, by, list) => {
  expect(moved(["a", "b", "c"], id, by)).toEqual(list);
});
