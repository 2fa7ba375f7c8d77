// What a coach writes on a card: fields as they are typed, and the card they make. Pure.
import type { Schemas } from "../../shared/api/client";
import { parseSigned } from "../../shared/format";
import { type Card, cardAt, changed, type Spot, type Week } from "./model";

export type Written = Schemas["Written"];
export type SetWritten = Schemas["SetWritten"];
export type PartKind = Schemas["PartKind"];

/** A field of which one value holds for several cards: the shared one, or none where they differ. */
export function shared<T>(cards: Card[], of: (written: Written) => T | null | undefined): T | undefined {
  const values = cards.map((card) => of(card.written ?? {}) ?? undefined);
  const first = values[0];
  return values.every((value) => JSON.stringify(value) === JSON.stringify(first)) ? first : undefined;
}

/** Without what is left as it is: an empty writing is none. */
function trimmed(written: Written): Written | undefined {
  const kept = Object.entries(written).filter(([, value]) => {
    if (value === undefined || value === null || value === "") return false;
    return typeof value !== "object" || Array.isArray(value)
      ? !Array.isArray(value) || value.length > 0
      : Object.keys(value).length > 0;
  });
  return kept.length > 0 ? (Object.fromEntries(kept) as Written) : undefined;
}

/** The week with something written on cards; `undefined` takes a field back to its default. */
export function wrote(week: Week, spots: Spot[], change: Partial<Written>): Week {
  return spots.reduce((now, spot) => {
    const card = cardAt(now, spot);
    return card ? changed(now, spot, { written: trimmed({ ...card.written, ...change }) }) : now;
  }, week);
}

/** The week with a number of the set-up written or, without one, as it was. */
export function wroteSetUp(week: Week, spots: Spot[], name: string, value: number | undefined): Week {
  return spots.reduce((now, spot) => {
    const { [name]: _, ...others } = cardAt(now, spot)?.written?.set_up ?? {};
    return wrote(now, [spot], { set_up: value === undefined ? others : { ...others, [name]: value } });
  }, week);
}

/** The week with one set of a card changed. */
export function wroteSet(week: Week, spot: Spot, number: number, change: Partial<SetWritten>): Week {
  const card = cardAt(week, spot);
  if (!card) return week;
  const sets = Array.from({ length: card.sets }, (_, index) => card.written?.per_set?.[index] ?? {});
  const next = sets.map((set, index) => {
    if (index !== number - 1) return set;
    const merged = { ...set, ...change };
    return Object.fromEntries(Object.entries(merged).filter(([, value]) => value !== undefined));
  });
  while (next.length > 0 && Object.keys(next.at(-1) ?? {}).length === 0) next.pop();
  return wrote(week, [spot], { per_set: next });
}

/** What the planner takes; it says so too. */
export const BOUNDS = {
  reps: [1, 100],
  seconds: [1, 600],
  reserve: [0, 5],
  rest_s: [0, 600],
  tempo: [0, 20],
  load_kg: [-200, 600],
  load_pct: [20, 200],
  angle_deg: [0, 180],
} as const;

/** A range from what was typed: `8-12`, `8–12`, `8 to 12` or `10`; undefined when it is none. */
export function parseRange(
  text: string,
  [least, most]: readonly [number, number],
): [number, number] | undefined {
  const found = /^\s*(\d+)\s*(?:(?:-|–|to)\s*(\d+))?\s*$/.exec(text);
  if (!found?.[1]) return undefined;
  const low = Number(found[1]);
  const high = found[2] === undefined ? low : Number(found[2]);
  return low >= least && low <= high && high <= most ? [low, high] : undefined;
}

export const rangeText = (range: readonly number[] | null | undefined): string =>
  !range ? "" : range[0] === range[1] ? String(range[0]) : `${range[0]}–${range[1]}`;

/** A pace from what was typed: `3-0-1-0` or `3010`; undefined when it is none. */
export function parseTempo(text: string): [number, number, number, number] | undefined {
  const parts = /^\d{4}$/.test(text.trim()) ? [...text.trim()] : text.trim().split(/[-–. ]+/);
  if (parts.length !== 4 || !parts.every((part) => /^\d{1,2}$/.test(part))) return undefined;
  const [lower, pause, lift, top] = parts.map(Number) as [number, number, number, number];
  return Math.max(lower, pause, lift, top) <= BOUNDS.tempo[1] ? [lower, pause, lift, top] : undefined;
}

export const tempoText = (tempo: readonly number[] | null | undefined): string => tempo?.join("-") ?? "";

/** A number within bounds, from what was typed. */
export function parseWithin(text: string, [low, high]: readonly [number, number]): number | undefined {
  return within(parseSigned(text), [low, high]);
}

/** A number, where it lies within bounds. */
export const within = (
  value: number | undefined,
  [low, high]: readonly [number, number],
): number | undefined => (value !== undefined && value >= low && value <= high ? value : undefined);

/** A whole number within bounds, from what was typed. */
export function parseWhole(text: string, bounds: readonly [number, number]): number | undefined {
  const value = parseWithin(text, bounds);
  return value !== undefined && Number.isInteger(value) ? value : undefined;
}

/** What a coach wrote on a card beside sets and repetitions, in the order in which it is read: load, tempo, rest. */
export function marks({ written }: Card): { load_kg?: number; tempo?: string; rest_s?: number } {
  return {
    load_kg: written?.load_kg ?? undefined,
    tempo: written?.tempo ? tempoText(written.tempo) : undefined,
    rest_s: written?.rest_s ?? undefined,
  };
}
