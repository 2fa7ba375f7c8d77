import type { Schemas } from "../api/client";

type Standing = Schemas["Standing"];

/** How a verdict is drawn: its colour, whether it is only leaning (hollow) and whether nothing is known (dashed). */
export function standingTone(standing: Standing): { colour: string; hollow: boolean; dashed: boolean } {
  const unclear = standing === "unclear";
  const [word, leaning] = standing.startsWith("leans-") ? [standing.slice(6), true] : [standing, false];
  return {
    colour: unclear ? "var(--level)" : `var(--${word})`,
    hollow: unclear || leaning,
    dashed: unclear,
  };
}
