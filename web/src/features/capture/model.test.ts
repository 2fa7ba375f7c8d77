import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { faultOf, heldBy, isLevel, nextOpen, type Pose, type PoseAsked, troubleOf, within } from "./model";

const asked = (pose: Pose, sent = 0, again?: string): PoseAsked => ({ pose, name: pose, sent, again });

describe("the next pose", () => {
  const poses = [asked("F", 1), asked("B"), asked("SL"), asked("SR", 1, "feet cut off")];
  test.each([
    ["is the first of which nothing was sent", [], -1, 1],
    ["comes after the one just taken", ["B"], 1, 2],
    ["may be one that is asked for once more", ["B", "SL"], 2, 3],
    ["goes round to what was left out", ["SL", "SR"], 3, 1],
    ["is none when all are there", ["B", "SL", "SR"], 3, undefined],
  ] as const)("%s", (_, taken, after, next) => {
    expect(nextOpen(poses, new Set(taken), after)).toBe(next);
  });
});

describe("how a phone is held", () => {
  test.each([
    ["straight", { x: 0, y: 9.81, z: 0 }, { roll: 0, pitch: 0 }, true],
    ["straight, felt the other way round", { x: 0, y: -9.81, z: 0 }, { roll: 0, pitch: 0 }, true],
    ["turned", { x: 0.855, y: 9.77, z: 0 }, { roll: 5, pitch: 0 }, false],
    ["tipped back", { x: 0, y: 9.66, z: 1.7 }, { roll: 0, pitch: 10 }, false],
  ] as const)("%s", (_, pull, held, level) => {
    const felt = heldBy(pull);
    expect(felt.roll).toBeCloseTo(held.roll, 1);
    expect(felt.pitch).toBeCloseTo(held.pitch, 1);
    expect(isLevel(felt)).toBe(level);
  });

  test("does not depend on which way round a phone counts the pull of the earth", () => {
    const part = fc.double({ min: -9, max: 9, noNaN: true });
    fc.assert(
      fc.property(part, fc.double({ min: 1, max: 9, noNaN: true }), part, (x, y, z) => {
        const [one, other] = [heldBy({ x, y, z }), heldBy({ x: -x, y: -y, z: -z })];
        expect(one.roll).toBeCloseTo(other.roll, 9);
        expect(one.pitch).toBeCloseTo(other.pitch, 9);
      }),
    );
  });
});

/** A copy of 40 by 60 in stripes of two greys, so wide; one px is as sharp as it gets. */
function striped([dark, bright]: readonly [number, number], stripe: number) {
  const pixels = new Uint8ClampedArray(40 * 60 * 4);
  for (let place = 0; place < 40 * 60; place++) {
    const grey = Math.floor((place % 40) / stripe) % 2 === 0 ? dark : bright;
    pixels.set([grey, grey, grey, 255], 4 * place);
  }
  return pixels;
}

test.each([
  ["sharp and light", striped([90, 160], 2), undefined],
  ["dark", striped([10, 50], 2), "light"],
  ["half of it glares", striped([90, 255], 2), "glare"],
  ["without an edge", striped([120, 120], 2), "blurred"],
] as const)("a picture that is %s is told by the page alone", (_, pixels, fault) => {
  expect(faultOf(pixels, 40, 60)).toBe(fault);
});

test("a phone on its side is told before anything else", () => {
  expect(faultOf(striped([0, 0], 2), 60, 40)).toBe("lying");
});

test.each([
  [[1440, 2560], 1280, [720, 1280]],
  [[600, 800], 1280, [600, 800]],
  [[4000, 3000], 480, [480, 360]],
] as const)("a copy of %o is at most %i px long", ([width, height], longest, copy) => {
  expect(within(width, height, longest)).toEqual(copy);
});

test.each([
  ["NotAllowedError", "refused"],
  ["NotFoundError", "none"],
  ["NotReadableError", "busy"],
  ["TypeError", "other"],
] as const)("%s is told as %s", (name, trouble) => {
  expect(troubleOf(name)).toBe(trouble);
});
