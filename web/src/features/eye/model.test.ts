import { expect, test } from "vitest";
import { across, asShown, framesOf, judged, type Look, type Sitting, signed, type Told } from "./model";

const told = (place: number, change: Partial<Told> = {}): Told => ({
  place,
  kind: "left-right",
  site: "calf",
  answer: 1,
  truth: 3,
  truth_steps: 1.5,
  ...change,
});

const sitting = (...all: Told[]): Sitting => ({ id: "s", pictures: 12, told: all });

test("a frame is drawn where the picture has it", () => {
  const frames = [{ side: "left", x: 0.5, y: 0.25, width: 0.1, height: 0.5 }];
  const look = { place: 0, kind: "standing", site: "calf", pose: "F", frames } as unknown as Look;
  expect(framesOf(look)).toEqual([{ side: "left", x: 360, y: 240, width: 72, height: 480 }]);
});

test.each([
  ["the first showing is as it is", {}, { answer: 1, truth: 3, truth_steps: 1.5 }],
  ["a mirrored one shows the other side", { seen_at: 2 }, { answer: -1, truth: -3, truth_steps: -1.5 }],
  ["the same on both sides stays it", { seen_at: 2, answer: 0 }, { answer: 0 }],
  ["what could not be told stays so", { seen_at: 2, answer: undefined }, { answer: undefined }],
  ["what is not told yet stays so", { seen_at: 2, truth: undefined }, { truth: undefined }],
  ["a standing has no sides", { seen_at: 2, kind: "standing" }, { answer: 1, truth: 3 }],
] as const)("of a picture as shown: %s", (_, change, expected) => {
  expect(asShown(told(9, change))).toMatchObject(expected);
});

test.each([
  ["behind hangs left", "standing", -1.5, 54.5],
  ["ahead hangs right", "standing", 1.5, 145.5],
  ["a larger left leans left", "left-right", 1.5, 54.5],
  ["a larger right leans right", "left-right", -1.5, 145.5],
  ["even hangs on the line", "standing", 0, 100],
  ["what is past the edge rests there", "standing", 9, 191],
] as const)("along the line %s wherever it is drawn", (_, kind, steps, x) => {
  expect(across(kind, steps, 200)).toBeCloseTo(x, 9);
});

test("a figure stands once, with both things that were said of it", () => {
  const all = sitting(told(0), told(1, { answer: undefined }), told(9, { seen_at: 0, answer: -1 }));
  expect(judged(all)).toEqual([
    {
      told: told(0),
      answers: [
        { value: 1, again: false },
        { value: -1, again: true },
      ],
    },
    { told: told(1, { answer: undefined }), answers: [{ value: undefined, again: false }] },
  ]);
});

test.each([
  ["left-right", 1.26, "+1.3\u00a0%"],
  ["left-right", -0.04, "0.0\u00a0%"],
  ["standing", -0.66, "\u22120.7 SD"],
] as const)("a size of %s, %s, is written %s", (kind, value, text) => {
  expect(signed(kind, value)).toBe(text);
});
