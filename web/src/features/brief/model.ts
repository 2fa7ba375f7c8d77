// A brief as the form holds it, and what the server's problems mean for its fields.
import type { Schemas } from "../../shared/api/client";

export type Brief = Schemas["ClientEntry"];
type Look = Schemas["Look"];

/** What only the client can say: a new brief has no answer to it. */
type Asked = "name" | "sex" | "birth_date" | "height_cm" | "dominant_hand" | "experience";

/** A brief to start from. */
export const emptyBrief: Omit<Brief, Asked> = {
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
  const measured = Object.entries(brief.screens ?? {}).filter(
    ([, value]) =>
      typeof value === "boolean" || (typeof value?.left === "number" && typeof value?.right === "number"),
  );
  const answered = Object.entries(brief.schools ?? {}).filter(([, answer]) => answer);
  return {
    ...brief,
    pain: brief.pain?.map(({ area, side, level }) => (side ? { area, side, level } : { area, level })),
    screens: Object.fromEntries(measured),
    schools: Object.fromEntries(answered),
    home: brief.home ?? undefined,
    photo_consent: brief.photo_consent ?? undefined,
    readiness: brief.readiness ?? undefined,
    clearance: brief.clearance ?? undefined,
    // Metric is what nobody has to say.
    measures:
      (brief.measures?.length ?? "cm") === "cm" && (brief.measures?.mass ?? "kg") === "kg"
        ? undefined
        : brief.measures,
  };
}

/** Fields at which two briefs differ. */
export function differing(mine: Brief, theirs: Brief): number {
  const [one, other] = [tidied(mine), tidied(theirs)];
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]) as Set<keyof Brief>;
  return [...keys].filter((key) => canonical(one[key]) !== canonical(other[key])).length;
}

/** JSON with keys in order and nothing for what is empty, so that the order of typing makes no difference. */
function canonical(value: unknown): string {
  return (
    JSON.stringify(value, (_, part) => {
      if (part === null || (Array.isArray(part) && part.length === 0)) return undefined;
      if (typeof part !== "object" || Array.isArray(part)) return part;
      const entries = Object.entries(part).sort(([a], [b]) => a.localeCompare(b));
      return entries.length > 0 ? Object.fromEntries(entries) : undefined;
    }) ?? ""
  );
}

/** Fields of the form that hold a whole list or object: what is wrong within stands at them. */
const ONE_FIELD = ["tags", "measures"];

/** The form's path of a JSON pointer under the brief: `/brief/pain/0/level` is ["pain", 0, "level"]. */
export function fieldPath(pointer: string): (string | number)[] {
  const parts = pointer
    .replace(/^\/brief/, "")
    .split("/")
    .slice(1);
  const [first = ""] = parts;
  if (ONE_FIELD.includes(first)) return [first];
  return parts.map((part) => (/^\d+$/.test(part) ? Number(part) : part));
}

/** Lowest and highest weight a coach may give. */
export const WEIGHTS = { low: 0, high: 3, step: 0.1 };

/** What a look gives a region: its own weight, else its muscle's, else neutral. */
export function lookWeight(look: Look | undefined, region: string): number {
  return look?.weights[region] ?? look?.weights[region.split(".")[0] ?? region] ?? 1;
}

/** The coach's own weights with one changed; back at the look's weight it is no change any more. */
export function withWeight(
  own: Record<string, number>,
  look: Look | undefined,
  region: string,
  weight: number,
): Record<string, number> {
  const held = Math.min(WEIGHTS.high, Math.max(WEIGHTS.low, Math.round(weight * 10) / 10));
  const { [region]: _, ...others } = own;
  return held === lookWeight(look, region) ? others : { ...others, [region]: held };
}
