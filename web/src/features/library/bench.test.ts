import { expect, test } from "vitest";
import { asked, byCoaches, byMechanics, curve, held, shown, unitOf, type Work } from "./bench";

const work = (region: string, share: number, fraction?: number) =>
  ({ region, share, catalogue: fraction === undefined ? null : { fraction } }) as unknown as Work;

test.each([
  [1, "main"],
  [0.5, "half"],
  [0.25, "quarter"],
  [0, "none"],
] as const)("a fraction of %d is told as %s", (fraction, weight) => expect(byCoaches(fraction)).toBe(weight));

test.each([
  [0.8, 0.8, "main"],
  [0.3, 0.3, "half"],
  [0.3, 1, "half"],
  [0.1, 1, "quarter"],
  [0.05, 1, "none"],
] as const)("a mean use of %d beside %d is told as %s", (share, largest, weight) =>
  expect(byMechanics(share, largest)).toBe(weight),
);

test("regions that do nothing and that nobody names are left out, named ones stay", () => {
  const regions = [work("a", 0.6), work("b", 0.05), work("c", 0.01, 0.25)];
  expect(shown(regions).map(({ region }) => region)).toEqual(["a", "c"]);
});

test("a curve runs over the whole box and is cut at its top", () => {
  expect(curve([0, 0.5, 2], 10, 20, 1)).toBe("0.0,20.0 5.0,10.0 10.0,0.0");
});

test("turned numbers make the address, and a name says its unit", () => {
  expect(asked({ bench_deg: 30, pulley_height_cm: 80 })).toBe("bench_deg:30,pulley_height_cm:80");
  expect([unitOf("pulley_height_cm"), unitOf("bench_deg")]).toEqual(["cm", "deg"]);
});

test.each([
  [
    "of a joint's axes the one that holds most at each point counts",
    { shoulder_elv_r: [-20, 5], elv_angle_r: [2, -30], elbow_flexion_r: [10, 10] },
    [
      { joint: "shoulder", nm: [20, 30], peak: 30, at: 1 },
      { joint: "elbow", nm: [10, 10], peak: 10, at: 0 },
    ],
  ],
  [
    "what holds next to nothing is left out",
    { knee_angle_r: [-100, -190, -80], hip_flexion_r: [1, 2, 3] },
    [{ joint: "knee", nm: [100, 190, 80], peak: 190, at: 0.5 }],
  ],
  ["nothing is held where nothing is known", {}, []],
])("joints: %s", (_, torque_nm, joints) => {
  expect(held(torque_nm as unknown as Record<string, number[]>)).toEqual(joints);
});
