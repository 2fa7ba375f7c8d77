import { expect, test } from "vitest";
import { decided, goingOn, marksOf, type Review } from "./model";

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

test("marks come in columns, without bands where no error is known", () => {
  const days = { on: ["2026-01-01", "2026-01-08"], values: [30, 31] };
  expect(marksOf({ ...days, bands: [1, 2] })[1]).toEqual({ on: "2026-01-08", value: 31, band: 2 });
  expect(marksOf(days).map(({ band }) => band)).toEqual([0, 0]);
});
