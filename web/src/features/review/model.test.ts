import { expect, test } from "vitest";
import { decided, goingOn, laidOut, marksOf, type Review } from "./model";

const review = {
  regions: [
    { region: "calves.gastrocnemius", chosen: true, proposed: "raise" },
    { region: "delts.lateral", chosen: true, proposed: "release" },
    { region: "lats.upper", chosen: true },
  ],
  decisions: { "delts.lateral": "keep" },
} as unknown as Review;

test("what is changed here goes before what was saved, and that before what is proposed", () => {
  expect(decided(review, {})).toEqual({ "calves.gastrocnemius": "raise", "delts.lateral": "keep" });
  expect(decided(review, { "delts.lateral": "swap" })["delts.lateral"]).toBe("swap");
});

test("released regions make room for others", () => {
  expect(goingOn(review, decided(review, {}), [])).toBe(3);
  expect(goingOn(review, decided(review, { "delts.lateral": "release" }), ["calves.soleus"])).toBe(3);
});

test("a line runs from its first day to its last, larger values higher", () => {
  const marks = [
    { on: "2026-01-01", value: 30, band: 1 },
    { on: "2026-01-11", value: 31, band: 1 },
    { on: "2026-02-10", value: 33, band: 1 },
  ];
  const [first, second, last] = laidOut(marks, 110, 50);
  expect([first?.x, second?.x, last?.x]).toEqual([5, 30, 105]);
  expect(first && last && first.y > last.y && first.top < first.y && first.bottom > first.y).toBe(true);
});

test("a single value stands in the middle", () => {
  expect(laidOut([{ on: "2026-01-01", value: 30, band: 0 }], 100, 40)).toEqual([
    { x: 50, y: 20, top: 20, bottom: 20 },
  ]);
});

test("marks come in columns, without bands where no error is known", () => {
  const days = { on: ["2026-01-01", "2026-01-08"], values: [30, 31] };
  expect(marksOf({ ...days, bands: [1, 2] })[1]).toEqual({ on: "2026-01-08", value: 31, band: 2 });
  expect(marksOf(days).map(({ band }) => band)).toEqual([0, 0]);
});
