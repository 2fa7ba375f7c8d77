// The sheet as it is typed: texts by place and reading, and what they become for the server.
import type { Schemas } from "../../shared/api/client";
import { parseNumber } from "../../shared/format";

export type Side = Schemas["Side"];
export type Entry = Schemas["TapeEntry"];
export type FoldEntry = Schemas["SkinfoldEntry"];
export type Site = Schemas["Site"];
export type Fold = Schemas["SkinfoldSite"];
export type Sheet = Schemas["TapeSheet"];
export type Device = Schemas["Device"];

/** A field of the sheet: `arm-flexed|left|0`, `fold:triceps|right|1`, `level:mid-thigh` or `weight`. */
export type Cell = string;
/** What is typed, by cell. */
export type Texts = Record<Cell, string>;
/** What is worked on: the fields and who holds the tape. */
export interface Typing {
  texts: Texts;
  holder: string;
}

export const READINGS = 3;
export const WEIGHT: Cell = "weight";

/** A line of the sheet: a girth or breadth, or a skinfold. */
export interface Place {
  /** How its cells begin: the site's id, or `fold:` and the fold's. */
  key: string;
  id: string;
  name: string;
  level: string;
  sides: (Side | undefined)[];
  device: Device;
  unit: "cm" | "mm";
}

const SIDES: Side[] = ["left", "right"];

export const placeOfSite = (site: Site): Place => ({
  key: site.id,
  id: site.id,
  name: site.name,
  level: site.level,
  sides: site.paired ? SIDES : [undefined],
  device: site.kind === "breadth" ? "gauge" : "tape",
  unit: "cm",
});

/** A fold is taken on both sides, unless this round has one whose side nobody noted. */
export const placeOfFold = (fold: Fold, entries: FoldEntry[]): Place => ({
  key: `fold:${fold.id}`,
  id: fold.id,
  name: fold.name,
  level: fold.level,
  sides: entries.some(({ site, side }) => site === fold.id && !side) ? [undefined] : SIDES,
  device: "calipers",
  unit: "mm",
});

export const isFold = ({ device }: Place): boolean => device === "calipers";

export const cell = (place: string, side: Side | undefined, reading: number): Cell =>
  `${place}|${side ?? ""}|${reading}`;

export const levelCell = (site: string): Cell => `level:${site}`;

/** Every cell of a line, readings in order. */
export const cellsOf = ({ key, sides }: Place): Cell[] =>
  sides.flatMap((side) => Array.from({ length: READINGS }, (_, reading) => cell(key, side, reading)));

/** A stored reading as it is read off: to the first decimal at least. */
const textOf = (value: number): string => (Number.isInteger(value) ? value.toFixed(1) : String(value));

/** The texts of readings of tape, gauge and calipers. */
export function textsOf(entries: Entry[], folds: FoldEntry[]): Texts {
  const texts: Texts = {};
  const put = (place: string, side: Side | null | undefined, readings: number[]) =>
    readings.forEach((value, reading) => {
      texts[cell(place, side ?? undefined, reading)] = textOf(value);
    });
  for (const { site, side, readings_cm } of entries) put(site, side, readings_cm);
  for (const { site, side, readings_mm } of folds) put(`fold:${site}`, side, readings_mm);
  return texts;
}

/** A stored sheet as it is worked on. */
export function typingOf(sheet: Sheet): Typing {
  const texts = textsOf(sheet.entries, sheet.folds);
  for (const [site, cm] of Object.entries(sheet.levels_cm)) texts[levelCell(site)] = textOf(cm);
  if (typeof sheet.weight_kg === "number") texts[WEIGHT] = textOf(sheet.weight_kg);
  return { texts, holder: sheet.measured_by };
}

export interface Typed {
  body: Omit<Schemas["SaveTape"], "revision">;
  /** The cells of each entry's readings, in the order of the entry. */
  entryCells: Cell[][];
  foldCells: Cell[][];
  /** Cells that hold no number. */
  unreadable: Cell[];
}

/** What the typed texts say: what the server is sent, and the cells that are no numbers. */
export function typed(places: Place[], sites: Site[], { texts, holder }: Typing): Typed {
  const body: Typed["body"] = { measured_by: holder, entries: [], folds: [], levels_cm: {} };
  const result: Typed = { body, entryCells: [], foldCells: [], unreadable: [] };
  const number = (key: Cell) => {
    if (!texts[key]?.trim()) return undefined;
    const value = parseNumber(texts[key]);
    if (value === undefined) result.unreadable.push(key);
    return value;
  };
  for (const place of places) {
    for (const side of place.sides) {
      const cells = Array.from({ length: READINGS }, (_, reading) => cell(place.key, side, reading));
      const read = cells.flatMap((key) => {
        const value = number(key);
        return value === undefined ? [] : [{ key, value }];
      });
      if (read.length === 0) continue;
      const values = read.map(({ value }) => value);
      const where = side ? { site: place.id, side } : { site: place.id };
      if (isFold(place)) {
        body.folds.push({ ...where, readings_mm: values });
        result.foldCells.push(read.map(({ key }) => key));
      } else {
        body.entries.push({ ...where, readings_cm: values });
        result.entryCells.push(read.map(({ key }) => key));
      }
    }
  }
  for (const { id } of sites) {
    const level = number(levelCell(id));
    if (level !== undefined) body.levels_cm[id] = level;
  }
  body.weight_kg = number(WEIGHT);
  return result;
}

/** The server's problems by cell. A problem of a whole entry stands at its first reading. */
export function problemsByCell(problems: Schemas["Problem"][], sent: Typed): Record<Cell, string> {
  const found: Record<Cell, string> = {};
  for (const { pointer, says } of problems) {
    const [, list, entry = "", , reading] = pointer.split("/");
    const cells = list === "folds" ? sent.foldCells : sent.entryCells;
    const key =
      list === "weight_kg"
        ? WEIGHT
        : list === "levels_cm"
          ? levelCell(entry)
          : cells[Number(entry)]?.[Number(reading ?? 0)];
    if (key) found[key] = says;
  }
  return found;
}

/** Fields at which two sheets differ. */
export function differing(mine: Typing, theirs: Typing): number {
  const filled = ({ texts, holder }: Typing) =>
    new Map(
      [...Object.entries(texts), ["holder", holder] as const]
        .filter(([, text]) => text.trim())
        .map(([key, text]) => [key, parseNumber(text) ?? text]),
    );
  const [one, other] = [filled(mine), filled(theirs)];
  const cells = new Set([...one.keys(), ...other.keys()]);
  return [...cells].filter((key) => one.get(key) !== other.get(key)).length;
}

/** The lines of a sheet in the order someone tapes; what they leave out stays only where something is stored. */
export function ordered(sites: Site[], order: Schemas["TapeOrder"] | undefined, texts: Texts): Site[] {
  const place = (id: string) => order?.sites.indexOf(id) ?? -1;
  const asked = sites.filter(
    (site) =>
      !order?.left_out.includes(site.id) || cellsOf(placeOfSite(site)).some((key) => texts[key]?.trim()),
  );
  return [...asked].sort((a, b) => place(a.id) - place(b.id));
}
