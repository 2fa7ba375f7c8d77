import { expect, test } from "vitest";
import { isStep, neighbours, STEP_KEYS } from "./model";

const rounds = [{ id: "new" }, { id: "middle" }, { id: "old" }];

test("rounds are newest first, so the older one comes after", () => {
  expect(neighbours(rounds, "middle")).toEqual({ older: { id: "old" }, newer: { id: "new" } });
  expect(neighbours(rounds, "new").newer).toBeUndefined();
  expect(neighbours(rounds, "gone")).toEqual({});
});

test("every step has a key of its own", () => {
  expect(new Set(Object.values(STEP_KEYS)).size).toBe(8);
});

test("an address that names no step is not one", () => {
  expect([isStep("tape"), isStep("sums"), isStep(undefined)]).toEqual([true, false, false]);
});
