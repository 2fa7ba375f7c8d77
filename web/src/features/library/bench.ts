// What the bench of a movement shows of who works. Pure.
import type { Schemas } from "../../shared/api/client";

export type Work = Schemas["RegionWork"];
export type SetUpNumber = Schemas["SetUpNumber"];

export type Weight = "main" | "half" | "quarter" | "none";

/** In the catalogue's words: of a fraction of a set. */
export function byCoaches(fraction: number): Weight {
  if (fraction >= 1) return "main";
  if (fraction >= 0.5) return "half";
  return fraction > 0 ? "quarter" : "none";
}

/** In the same words, of a mean use beside the largest. */
export function byMechanics(share: number, largest: number): Weight {
  if (share >= 0.5 * largest && share >= 0.35) return "main";
  if (share >= 0.25 * largest && share >= 0.15) return "half";
  return share >= 0.08 ? "quarter" : "none";
}

/** Regions worth a line: those that do something, or of which the catalogue says so. */
export function shown(regions: Work[], lines = 8): Work[] {
  const named = regions.filter(({ share, catalogue }) => catalogue || share >= 0.1);
  return named.slice(0, Math.max(lines, named.filter(({ catalogue }) => catalogue).length));
}

/** Points of a curve over the range, from the left and the bottom, in a box of so many units; over `most` is cut. */
export function curve(values: number[], width: number, height: number, most: number): string {
  const step = width / Math.max(1, values.length - 1);
  const at = (value: number) => height - (height * Math.min(value, most)) / most;
  return values.map((value, place) => `${(place * step).toFixed(1)},${at(value).toFixed(1)}`).join(" ");
}

/** Numbers that differ from the usual ones, as the address of a request has them. */
export function asked(numbers: Record<string, number>): string {
  return Object.entries(numbers)
    .map(([name, value]) => `${name}:${value}`)
    .join(",");
}

/** The unit at the end of a number's name. */
export function unitOf(name: string): "deg" | "cm" {
  return name.endsWith("_cm") ? "cm" : "deg";
}

/** Joints as coaches name them, each with the model's axes. */
const JOINTS = {
  shoulder: /^(shoulder|elv)_/,
  elbow: /^elbow_/,
  forearm: /^pro_sup/,
  wrist: /^(flexion|deviation)_r/,
  trunk: /^(flex_extension|lat_bending|axial_rotation)/,
  hip: /^hip_/,
  knee: /^knee_/,
  ankle: /^(ankle|subtalar)_/,
};
export type Joint = keyof typeof JOINTS;

/** What a joint holds along the range, Nm, and where most. */
export interface Held {
  joint: Joint;
  nm: number[];
  peak: number;
  /** Share of the range, 0 to 1. */
  at: number;
}

/** Joints that hold the most are shown, and none that holds less than a tenth of it. */
const JOINTS_SHOWN = 3;
const LEAST_OF_MOST = 0.1;

/** What the joints hold against the load, the hardest held first; of a joint's axes the one that holds most at each point. */
export function held(torque_nm: Record<string, number[]>): Held[] {
  const all = (Object.keys(JOINTS) as Joint[]).flatMap((joint) => {
    const axes = Object.entries(torque_nm).filter(([axis]) => JOINTS[joint].test(axis));
    const [first] = axes;
    if (!first) return [];
    const nm = first[1].map((_, point) =>
      Math.max(...axes.map(([, values]) => Math.abs(values[point] ?? 0))),
    );
    const peak = Math.max(...nm);
    return [{ joint, nm, peak, at: nm.indexOf(peak) / Math.max(1, nm.length - 1) }];
  });
  all.sort((one, other) => other.peak - one.peak);
  const most = all[0]?.peak ?? 0;
  return all.filter(({ peak }) => peak > 0 && peak >= LEAST_OF_MOST * most).slice(0, JOINTS_SHOWN);
}
