// The sheet as it is typed: texts by place and reading, and what they become for the server.
import type { Schemas } from "../../shared/api/client";

export type Side = Schemas["Side"];
export type Entry = Schemas["TapeEntry"];
export type Site = Schemas["Site"];

/** A reading's cell: `arm-flexed|left|0`. */
export type Cell = string;
/** What is typed, by cell. */
export type Texts = Record<Cell, string>;

export const READINGS = 3;

export const cell = (site: string, side: Side | undefined, reading: number): Cell =>
  `${site}|${side ?? ""}|${reading}`;

export const sidesOf = (site: Site): (Side | undefined)[] => (site.paired ? ["left", "right"] : [undefined]);

/** Centimetres from a typed text: a point or a comma. `undefined` when it is no number. */
export function parseCm(text: string): number | undefined {
  const plain = text.trim().replace(",", ".");
  return /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : undefined;
}

/** A stored reading as it is read off a tape: to the millimetre at least. */
const textOf = (cm: number): string => (Number.isInteger(cm) ? cm.toFixed(1) : String(cm));

/** The texts of stored readings. */
export function textsOf(entries: Entry[]): Texts {
  const texts: Texts = {};
  for (const { site, side, readings_cm } of entries) {
    readings_cm.forEach((cm, reading) => {
      texts[cell(site, side ?? undefined, reading)] = textOf(cm);
    });
  }
  return texts;
}

export interface Typed {
  entries: Entry[];
  /** The cells of each entry's readings, in the order of the entry. */
  cells: Cell[][];
  /** Cells that hold no number. */
  unreadable: Cell[];
}

/** What the typed texts say: entries for the server, and the cells that are no numbers. */
export function typed(sites: Site[], texts: Texts): Typed {
  const result: Typed = { entries: [], cells: [], unreadable: [] };
  for (const site of sites) {
    for (const side of sidesOf(site)) {
      const cells = Array.from({ length: READINGS }, (_, reading) => cell(site.id, side, reading));
      const filled = cells.filter((key) => texts[key]?.trim());
      const readable = filled.filter((key) => parseCm(texts[key] ?? "") !== undefined);
      result.unreadable.push(...filled.filter((key) => !readable.includes(key)));
      if (readable.length === 0) continue;
      const readings_cm = readable.map((key) => parseCm(texts[key] ?? "") ?? 0);
      result.entries.push(side ? { site: site.id, side, readings_cm } : { site: site.id, readings_cm });
      result.cells.push(readable);
    }
  }
  return result;
}

/** The server's problems by cell. A problem of a whole entry stands at its first reading. */
export function problemsByCell(problems: Schemas["Problem"][], cells: Cell[][]): Record<Cell, string> {
  const found: Record<Cell, string> = {};
  for (const { pointer, says } of problems) {
    const [, , entry, , reading] = pointer.split("/");
    const key = cells[Number(entry)]?.[Number(reading ?? 0)];
    if (key) found[key] = says;
  }
  return found;
}

/** Places at which two sheets differ. */
export function differing(mine: Entry[], theirs: Entry[]): number {
  const place = ({ site, side }: Entry) => `${site}|${side ?? ""}`;
  const byPlace = (entries: Entry[]) => new Map(entries.map((e) => [place(e), e.readings_cm.join(" ")]));
  const [one, other] = [byPlace(mine), byPlace(theirs)];
  const places = new Set([...one.keys(), ...other.keys()]);
  return [...places].filter((key) => one.get(key) !== other.get(key)).length;
}
