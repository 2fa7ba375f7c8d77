import { expect, test } from "vitest";
import { laidOut, nearest, stepped, ticksOf, valueTicks } from "./timeline";

const FRAME = { left: 40, right: 145, top: 6, bottom: 94 };
const MARKS = [
  { on: "2026-01-01", value: 30, band: 1 },
  { on: "2026-01-11", value: 31, band: 1 },
  { on: "2026-02-10", value: 33, band: 1 },
];

test("a line runs from its first day to its last, larger values higher, bands included", () => {
  const { x, y } = laidOut(MARKS, FRAME);
  expect(MARKS.map(({ on }) => x(Date.parse(on)))).toEqual([45, 70, 145]);
  expect([y(29), y(34)]).toEqual([90, 6]);
});

test("a single value stands in the middle", () => {
  const { x, y } = laidOut([{ on: "2026-01-01", value: 30, band: 0 }], FRAME);
  expect([x(Date.parse("2026-01-01")), y(30)]).toEqual([92.5, 50]);
});

test("a value beyond the span rests at its edge", () => {
  const { y } = laidOut(MARKS, FRAME, [-3, 3]);
  expect(y(33)).toBe(y(3));
});

test("first and last day are written, and one day once", () => {
  expect(ticksOf(MARKS)).toEqual(["2026-01-01", "2026-02-10"]);
  expect(ticksOf(MARKS.slice(0, 1))).toEqual(["2026-01-01"]);
});

test("numbers beside a chart never run into each other", () => {
  const { y } = laidOut(MARKS, FRAME, [-3, 3]);
  expect(valueTicks(MARKS, y, [-3, 3], 0)).toEqual([3, 0, -3]);
  expect(valueTicks(MARKS, y, [-3, 3], 2.9)).toEqual([3, -3]);
  expect(valueTicks(MARKS, laidOut(MARKS, FRAME).y)).toEqual([33, 30]);
});

test.each([
  [44, 0],
  [56, 0],
  [58, 1],
  [500, 2],
])("at %i the value read is number %i", (at, place) => {
  expect(nearest([45, 70, 145], at)).toBe(place);
});

test.each([
  ["ArrowLeft", 1, 0],
  ["ArrowLeft", 0, 0],
  ["ArrowRight", 1, 2],
  ["ArrowRight", 2, 2],
  ["Home", 2, 0],
  ["End", 0, 2],
  ["j", 1, undefined],
])("%s at %i goes to %s", (key, at, to) => {
  expect(stepped(key, at, 3)).toBe(to);
});
