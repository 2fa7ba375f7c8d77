import { expect, test } from "vitest";
import { chance, parseSigned, shortest, signed } from "./numbers";
import { METRIC, quantitiesIn } from "./quantity";

const cm = quantitiesIn(METRIC).length.text;

test.each([
  [37.449, "37.4"],
  [-0.04, "0.0"],
  [-1.26, "−1.3"],
])("%f cm is shown as %s, without false digits or a negative nothing", (value, text) => {
  expect(cm(value)).toBe(text);
});

test("a change carries its sign, nothing carries none", () => {
  expect([signed(0.6, cm), signed(-0.6, cm), signed(0.01, cm)]).toEqual(["+0.6", "−0.6", "0.0"]);
});

test.each([
  [12, 2, "12"],
  [12.5, 2, "12.5"],
  [12.346, 2, "12.35"],
  [0, 2, "0"],
])("%f with at most %i decimals is %s", (value, most, text) => {
  expect(shortest(value, most)).toBe(text);
});

test("no probability is shown as certain", () => {
  expect([chance(0.9999), chance(0.0001), chance(0.7)]).toEqual(["99", "1", "70"]);
});

test.each([
  ["12,5", 12.5],
  ["-20", -20],
  ["−20", -20],
  [" - 20", -20],
  ["twenty", undefined],
])("%s is read as %s", (typed, value) => {
  expect(parseSigned(typed)).toBe(value);
});
