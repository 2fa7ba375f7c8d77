// Ranges of motion as they are typed. Pure.
import type { Schemas } from "../../shared/api/client";
import { parseNumber } from "../../shared/format";
import type { Side } from "./model";

export type Screens = Schemas["Screens"];

/** Degrees by `screen|side`; whether the blades can be drawn together. */
export interface ScreenTyping {
  texts: Record<string, string>;
  blades?: boolean;
}

export const screenCell = (id: string, side: Side): string => `${id}|${side}`;

const field = (id: string) => `${id}_deg` as keyof Screens;

type Degrees = { left: number; right: number };

export function typingOf(screens: Screens | undefined, ids: string[]): ScreenTyping {
  const texts: Record<string, string> = {};
  for (const id of ids) {
    const degrees = screens?.[field(id)] as Degrees | null | undefined;
    if (!degrees) continue;
    texts[screenCell(id, "left")] = String(degrees.left);
    texts[screenCell(id, "right")] = String(degrees.right);
  }
  return { texts, blades: screens?.blades_retract ?? undefined };
}

/** What the texts say: a range counts once both sides are there. */
export function screensOf(
  { texts, blades }: ScreenTyping,
  ids: string[],
): { screens: Screens; unfinished: string[] } {
  const screens: Record<string, Degrees | boolean> = {};
  const unfinished: string[] = [];
  for (const id of ids) {
    const typed = (["left", "right"] as const).map((side) => texts[screenCell(id, side)]?.trim() ?? "");
    const [left, right] = typed.map(parseNumber);
    if (left !== undefined && right !== undefined) screens[field(id)] = { left, right };
    else if (typed.some(Boolean)) unfinished.push(id);
  }
  if (blades !== undefined) screens.blades_retract = blades;
  return { screens: screens as Screens, unfinished };
}

export function differing(mine: ScreenTyping, theirs: ScreenTyping, ids: string[]): number {
  const [one, other] = [screensOf(mine, ids).screens, screensOf(theirs, ids).screens] as Record<
    string,
    unknown
  >[];
  const keys = new Set([...Object.keys(one ?? {}), ...Object.keys(other ?? {})]);
  return [...keys].filter((key) => JSON.stringify(one?.[key]) !== JSON.stringify(other?.[key])).length;
}
