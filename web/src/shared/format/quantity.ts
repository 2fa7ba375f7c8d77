// Lengths and masses in a person's own units. What is kept and sent is metric; what was typed comes back to the digit.
import { createContext, use, useMemo } from "react";
import type { Schemas } from "../api/client";
import { fixed, parseNumber, shortest, signed, signedBy } from "./numbers";

/** What is left out is metric. */
export type Measures = Schemas["Measures"];
type LengthUnit = Schemas["LengthUnit"];
type MassUnit = Schemas["MassUnit"];

/** One kind of quantity in one unit: `metric` values are cm or kg. */
export interface Quantity {
  unit: string;
  /** As it is read: girths to a tenth, or to an eighth of an inch. */
  text: (metric: number) => string;
  /** As it is typed and logged: as short as it was typed, no false digits where it was typed in another unit. */
  typed: (metric: number) => string;
  /** With its unit. */
  full: (metric: number) => string;
  /** As a change, with its sign. */
  change: (metric: number) => string;
  /** What a typed text says, metric; `undefined` when it is no number. */
  parse: (text: string) => number | undefined;
  /** The same, where it may lie under 0. */
  parseSigned: (text: string) => number | undefined;
  /** A metric number in this unit. */
  of: (metric: number) => number;
  /** A number of this unit, metric. */
  from: (own: number) => number;
}

/** The international inch and pound of 1959, exact. */
const CM_OF_AN_INCH = 2.54;
const KG_OF_A_POUND = 0.45359237;

function quantity(unit: string, metric: number, inEighths = false): Quantity {
  const of = (value: number) => value / metric;
  // A product of the constants and few digits, without the noise of the last bit.
  const from = (own: number) => (metric === 1 ? own : Number((own * metric).toPrecision(12)));
  const read = inEighths ? parseEighths : parseNumber;
  const inUnit = (parse: (text: string) => number | undefined) => (text: string) => {
    const own = parse(text);
    return own === undefined ? undefined : from(own);
  };
  const text = (value: number) => (inEighths ? eighths(of(value)) : fixed(of(value), 1));
  const typed = (value: number) => {
    if (inEighths && isEighths(of(value))) return eighths(of(value));
    const hundredths = Math.round(of(value) * 100) / 100;
    return Math.abs(hundredths - of(value)) < 1e-6
      ? shortest(hundredths, 2)
      : shortest(Math.round(of(value) * 10) / 10, 1);
  };
  return {
    unit,
    of,
    from,
    text,
    typed,
    full: (value) => `${typed(value)} ${unit}`,
    change: (value) => signed(value, text),
    parse: inUnit(read),
    parseSigned: inUnit(signedBy(read)),
  };
}

const isEighths = (inches: number): boolean => Math.abs(inches * 8 - Math.round(inches * 8)) < 1e-5;

const FRACTIONS = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"];

/** Whole inches and the nearest eighth. */
function eighths(inches: number): string {
  const all = Math.round(Math.abs(inches) * 8);
  const whole = Math.floor(all / 8);
  const size = `${whole || all === 0 || all % 8 === 0 ? whole : ""}${FRACTIONS[all % 8]}`;
  return inches < 0 && all > 0 ? `−${size}` : size;
}

/** Inches as they are typed: `14.5`, `14 1/2`, `14½`, `1/8`. */
function parseEighths(text: string): number | undefined {
  const sign = FRACTIONS.findIndex((one) => one && text.trim().endsWith(one));
  const plain = sign > 0 ? `${text.trim().slice(0, -1)} ${sign}/8` : text.trim();
  const parts = /^(?:(\d+)[\s-]+)?(\d+)\/(2|4|8|16)$/.exec(plain.trim());
  if (!parts) return parseNumber(plain);
  return Number(parts[1] ?? 0) + Number(parts[2]) / Number(parts[3]);
}

const LENGTHS: Record<LengthUnit, Quantity> = {
  cm: quantity("cm", 1),
  in: quantity("in", CM_OF_AN_INCH),
  "in-eighths": quantity("in", CM_OF_AN_INCH, true),
};
const MASSES: Record<MassUnit, Quantity> = {
  kg: quantity("kg", 1),
  lb: quantity("lb", KG_OF_A_POUND),
};

export const METRIC: Measures = { length: "cm", mass: "kg" };

/** A number that is the same for everybody, as a seat's hole. */
export const PLAIN: Quantity = quantity("", 1);

/** The units of whoever looks. */
export const OwnMeasures = createContext<Measures>(METRIC);

export interface Quantities {
  length: Quantity;
  mass: Quantity;
}

export const quantitiesIn = (measures: Measures): Quantities => ({
  length: LENGTHS[measures.length ?? "cm"],
  mass: MASSES[measures.mass ?? "kg"],
});

/** Quantities in a sentence of the server's, which are always metric: `35 cm`, `15 to 75 cm`, `2.5 kg`. */
const TOLD = /(−?-?\d+(?:\.\d+)?)(?: (to|or) (\d+(?:\.\d+)?))? (cm|kg)\b/g;

/** A sentence of the server's in somebody's units. */
export function saidIn({ length, mass }: Quantities, sentence: string): string {
  return sentence.replace(TOLD, (all, one: string, word: string | undefined, other: string, unit: string) => {
    const own = unit === "cm" ? length : mass;
    if (own.unit === unit) return all;
    const told = (number: string) => own.typed(Number(number.replace("−", "-")));
    return word ? `${told(one)} ${word} ${told(other)} ${own.unit}` : `${told(one)} ${own.unit}`;
  });
}

/** Lengths and masses as whoever looks reads and types them. */
export function useQuantities(): Quantities & { said: (sentence: string) => string } {
  const measures = use(OwnMeasures);
  return useMemo(() => {
    const own = quantitiesIn(measures);
    return { ...own, said: (sentence: string) => saidIn(own, sentence) };
  }, [measures]);
}
