import { expect, test } from "vitest";
import { leanSpan, plumbSpan } from "./scale";

test("behind hangs left of the line, ahead right of it, level on it", () => {
  const [behind, level, ahead] = [-1, 0, 1].map((mean) => plumbSpan(mean, 0.3, 200).at);
  expect(behind).toBeLessThan(100);
  expect(level).toBe(100);
  expect(ahead).toBeGreaterThan(100);
});

test("a less certain mark has a wider whisker", () => {
  const width = (sd: number) => plumbSpan(0, sd, 200).to - plumbSpan(0, sd, 200).from;
  expect(width(0.8)).toBeGreaterThan(width(0.4));
});

test("a mark beyond the scale rests at its edge", () => {
  expect(plumbSpan(-9, 0.1, 200).at).toBe(plumbSpan(-4, 0.1, 200).at);
});

test("a larger left leans to the left", () => {
  expect(leanSpan(4, 1, 100).at).toBeLessThan(50);
  expect(leanSpan(-4, 1, 100).at).toBeGreaterThan(50);
});
