// A brief as the form holds it, and what the server's problems mean for its fields.
import type { Schemas } from "../../shared/api/client";

export type Brief = Schemas["ClientEntry"];

/** A brief to start from. */
export const emptyBrief: Brief = {
  name: "",
  sex: "female",
  birth_date: "",
  height_cm: 170,
  dominant_hand: "right",
  experience: "beginner",
  look: "balanced",
  look_weights: {},
  days_per_week: 3,
  minutes_per_session: 60,
  max_exercises_per_session: 8,
  equipment: [],
  pain: [],
  screens: {},
  excluded_exercises: [],
  schools: {},
};

/** The form leaves a side of a pain or a screen empty as `null` or ""; the file leaves it out. */
export function tidied(brief: Brief): Brief {
  const { shoulder_extension_deg: extension, ...screens } = brief.screens ?? {};
  const measured = typeof extension?.left === "number" && typeof extension?.right === "number";
  return {
    ...brief,
    pain: brief.pain?.map(({ area, side, level }) => (side ? { area, side, level } : { area, level })),
    screens: measured ? { ...screens, shoulder_extension_deg: extension } : screens,
  };
}

/** The form's path of a JSON pointer under the brief: `/brief/pain/0/level` is ["pain", 0, "level"]. */
export function fieldPath(pointer: string): (string | number)[] {
  const parts = pointer
    .replace(/^\/brief/, "")
    .split("/")
    .slice(1);
  return parts.map((part) => (/^\d+$/.test(part) ? Number(part) : part));
}

/** A look's weights that differ from neutral, heaviest first. */
export function unevenWeights(look: Schemas["Look"] | undefined): [string, number][] {
  return Object.entries(look?.weights ?? {})
    .filter(([, weight]) => weight !== 1)
    .sort((a, b) => b[1] - a[1]);
}
