// What is said of answers and truths, without React.

import type { Schemas } from "../../shared/api/client";
import { tenths } from "../../shared/format";
import type { Frame, Kind } from "../../shared/judging";

export type Told = Schemas["EyeToldView"];
export type Sitting = Schemas["EyeSittingView"];
export type Look = Schemas["EyeLook"];

/** Pictures are drawn in this shape, px. */
export const PICTURE = { width: 720, height: 960 };

/** Where the part is, px of the picture. */
export function framesOf(look: Look): Frame[] {
  return look.frames.map(({ side, x, y, width, height }) => ({
    side,
    x: x * PICTURE.width,
    y: y * PICTURE.height,
    width: width * PICTURE.width,
    height: height * PICTURE.height,
  }));
}

/** An answer and its truth as the picture showed them: of a mirrored picture, the other side. */
export function asShown(told: Told): Told {
  if (told.kind === "standing" || typeof told.seen_at !== "number") return told;
  const turned = (value: number | null | undefined) => (typeof value === "number" ? -value || 0 : undefined);
  return {
    ...told,
    answer: turned(told.answer),
    truth: turned(told.truth),
    truth_steps: turned(told.truth_steps),
  };
}

/** Steps shown to either side of the line; further marks rest at the edge. */
const STEPS = 3;
const MARGIN = 9;

/** Where a value in steps lies on a line `width` wide: behind to the left, and the larger side on its own side. */
export function across(kind: Kind, steps: number, width: number): number {
  const held = Math.min(Math.max(kind === "standing" ? steps : -steps, -STEPS), STEPS);
  return width / 2 + (held / STEPS) * (width / 2 - MARGIN);
}

/** Each figure once, in the order in which it was first shown, with all that was said of it. */
export interface Judged {
  told: Told;
  answers: { value: number | undefined; again: boolean }[];
}

export function judged(sitting: Sitting): Judged[] {
  const first = sitting.told.filter(({ seen_at }) => typeof seen_at !== "number");
  return first.map((told) => {
    const again = sitting.told.find(({ seen_at }) => seen_at === told.place);
    const given = (one: Told, again: boolean) => ({ value: one.answer ?? undefined, again });
    return { told, answers: again ? [given(told, false), given(again, true)] : [given(told, false)] };
  });
}

/** A size in the unit of its kind: % between the sides, SD against the rest. */
export function sized(kind: Kind, value: number): string {
  return kind === "standing" ? `${tenths(value)} SD` : `${tenths(value)}\u00a0%`;
}

/** The same with its sign, a real minus and no plus before nothing. */
export function signed(kind: Kind, value: number): string {
  const shown = sized(kind, Math.abs(value));
  if (Math.round(10 * Math.abs(value)) === 0) return shown;
  return `${value < 0 ? "\u2212" : "+"}${shown}`;
}
