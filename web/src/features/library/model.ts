// What the library shows of the exercises, and how an own one is written. Pure.
import type { Atlas } from "../../shared/api/atlas";
import type { Schemas } from "../../shared/api/client";

export type Exercise = Schemas["Exercise"];
export type Listed = Atlas["exercises"][number];
export type Hardest = Schemas["Hardest"];

export interface Filter {
  find: string;
  region?: string;
  hardest?: Hardest;
  /** Only what stretches its main region clearly. */
  stretched: boolean;
  /** Id of a kit: only what can be done with it. */
  kit?: string;
}

/** Exercises that pass a filter; those for which the region is the main target come first. */
export function filtered(atlas: Atlas, filter: Filter): Listed[] {
  const words = filter.find.toLowerCase().split(/\s+/).filter(Boolean);
  const kit = atlas.kits.find(({ id }) => id === filter.kit);
  const stands = new Set(kit?.items);
  const always = new Set(atlas.equipment.filter((item) => item.always).map(({ id }) => id));
  const passes = (exercise: Listed) =>
    words.every((word) => exercise.name.toLowerCase().includes(word)) &&
    (!filter.region || exercise.targets[filter.region] !== undefined) &&
    (!filter.hardest || exercise.hardest.includes(filter.hardest)) &&
    (!filter.stretched || exercise.stretch >= 2) &&
    (!kit || exercise.equipment.every((item) => always.has(item) || stands.has(item)));
  const fraction = (exercise: Listed) => (filter.region ? (exercise.targets[filter.region] ?? 0) : 0);
  return atlas.exercises.filter(passes).sort((one, other) => fraction(other) - fraction(one));
}

/** Regions of an exercise, main targets first. */
export function targetsOf(exercise: { targets: Record<string, number> }): [string, number][] {
  return Object.entries(exercise.targets).sort((one, other) => other[1] - one[1]);
}

/** An id from a name: lower case, words joined by hyphens, marked as the practice's own. */
export function idOf(name: string): string {
  const plain = name
    .normalize("NFKD")
    .replace(/[^\x20-\x7e]/g, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  return `own-${plain || "exercise"}`;
}

export interface Draft {
  id?: string;
  name: string;
  family: string;
  main: string[];
  half: string[];
  quarter: string[];
  equipment: string[];
  sides: Exercise["sides"];
  hardest: Hardest[];
  stretch: number;
  stability: number;
  counted: "reps" | "seconds";
  low: string;
  high: string;
  effort: Exercise["effort"];
  joints: string[];
  movement: NonNullable<Exercise["movement"]>;
  axial: number;
  skill: number;
  avoidPain: string[];
  beginners: boolean;
  setUp: string;
  cues: string;
  retired: boolean;
}

export const emptyDraft: Draft = {
  name: "",
  family: "",
  main: [],
  half: [],
  quarter: [],
  equipment: [],
  sides: "both",
  hardest: ["M"],
  stretch: 1,
  stability: 1,
  counted: "reps",
  low: "8",
  high: "12",
  effort: "isolation",
  joints: [],
  movement: "isolation",
  axial: 0,
  skill: 0,
  avoidPain: [],
  beginners: false,
  setUp: "",
  cues: "",
  retired: false,
};

export function draftOf(exercise: Exercise): Draft {
  const of = (fraction: number) =>
    Object.entries(exercise.targets)
      .filter(([, value]) => value === fraction)
      .map(([region]) => region);
  const [low, high] = exercise.reps ?? exercise.seconds ?? [8, 12];
  return {
    id: exercise.id,
    name: exercise.name,
    family: exercise.family,
    main: of(1),
    half: of(0.5),
    quarter: of(0.25),
    equipment: exercise.equipment,
    sides: exercise.sides,
    hardest: exercise.hardest,
    stretch: exercise.stretch,
    stability: exercise.stability,
    counted: exercise.seconds ? "seconds" : "reps",
    low: String(low),
    high: String(high),
    effort: exercise.effort,
    joints: exercise.loads_joint ?? Object.keys(exercise.joints ?? {}),
    movement: exercise.movement ?? "isolation",
    axial: exercise.axial ?? 0,
    skill: exercise.skill ?? 0,
    avoidPain: exercise.avoid?.pain ?? [],
    beginners: exercise.avoid?.beginner ?? false,
    setUp: exercise.set_up,
    cues: exercise.cues.join("\n"),
    retired: exercise.advised_against != null,
  };
}

/** Load on a joint that was only named. */
const CLEAR = 2;

export const AXIAL = [0, 0.5, 1, 2, 3] as const;
export const SKILLS = [0, 1, 2] as const;

export const MOVEMENTS = [
  "squat",
  "hinge",
  "press-flat",
  "press-down",
  "press-overhead",
  "row",
  "pull-from-above",
  "carry",
  "isolation",
] as const;

/** What is sent. A number that is none is sent as 0, which the server names with its place. */
export function exerciseOf(draft: Draft, retiredWhy: string, stored?: Exercise): Exercise {
  const number = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : 0);
  const range = [number(draft.low), number(draft.high)];
  const fractions: [string[], number][] = [
    [draft.quarter, 0.25],
    [draft.half, 0.5],
    [draft.main, 1],
  ];
  const targets = Object.fromEntries(
    fractions.flatMap(([regions, fraction]) => regions.map((region) => [region, fraction])),
  );
  return {
    id: draft.id ?? idOf(draft.name),
    name: draft.name.trim(),
    family: draft.family.trim() || (draft.id ?? idOf(draft.name)),
    equipment: draft.equipment,
    sides: draft.sides,
    targets,
    hardest: draft.hardest,
    stretch: draft.stretch,
    stability: draft.stability,
    [draft.counted]: range,
    effort: draft.effort,
    // What was graded stays as it was; a joint that is new counts as clearly loaded.
    joints: Object.fromEntries(draft.joints.map((joint) => [joint, stored?.joints?.[joint] ?? CLEAR])),
    axial: draft.axial,
    movement: draft.movement,
    skill: draft.skill,
    eccentric: stored?.eccentric ?? false,
    comfort: stored?.comfort ?? 1,
    steps: stored?.steps ?? 1,
    usual_scheme: stored?.usual_scheme ?? "straight",
    actions: stored?.actions ?? [],
    advised_against: draft.retired ? retiredWhy : undefined,
    set_up: draft.setUp.trim(),
    cues: draft.cues
      .split("\n")
      .map((cue) => cue.trim())
      .filter(Boolean),
    faults: stored?.faults ?? [],
    cautions: stored?.cautions ?? [],
    avoid: {
      pain: draft.avoidPain,
      screen_below_deg: stored?.avoid?.screen_below_deg ?? {},
      beginner: draft.beginners,
    },
  };
}
