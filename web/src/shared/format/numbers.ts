// Numbers as they are shown: girths to 0.1 cm, percentages to one decimal, no false digits, a real minus sign.
import { perLocale } from "./locale";

const formats = perLocale((own) =>
  [0, 1, 2, 3].map(
    (decimals) =>
      new Intl.NumberFormat(own, {
        minimumFractionDigits: decimals,
        maximumFractionDigits: decimals,
        useGrouping: false,
      }),
  ),
);

/** Whether a text shows nothing but zeros. */
const isNothing = (text: string): boolean => !/[1-9⅛¼⅜½⅝¾⅞]/.test(text);

export function fixed(value: number, decimals: number): string {
  const text = formats()[decimals]?.format(Math.abs(value)) ?? String(value);
  return value < 0 && !isNothing(text) ? `−${text}` : text;
}

/** The shortest text of a number with at most so many decimals. */
export function shortest(value: number, most: number): string {
  const needed = [0, 1, 2].find(
    (decimals) =>
      decimals < most && Math.abs(value * 10 ** decimals - Math.round(value * 10 ** decimals)) < 1e-6,
  );
  return fixed(value, needed ?? most);
}

export const mm = (value: number): string => fixed(value, 1);
export const degrees = (value: number): string => `${fixed(value, 0)}°`;
export const percent = (value: number): string => fixed(value, 1);
/** Shares, errors and other numbers that mean nothing beyond so many places. */
export const tenths = (value: number): string => fixed(value, 1);
export const hundredths = (value: number): string => fixed(value, 2);
export const sd = (value: number): string => fixed(value, 1);
export const sets = (value: number): string => fixed(value, Number.isInteger(value) ? 0 : 1);

/** A number from a typed text, with a point or a comma; `undefined` when it is none. */
export function parseNumber(text: string): number | undefined {
  const plain = text.trim().replace(",", ".");
  return /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : undefined;
}

/** What reads texts, for numbers that may lie under 0, with any minus sign. */
export function signedBy(parse: (text: string) => number | undefined): (text: string) => number | undefined {
  return (text) => {
    const below = /^\s*[-−–]/.test(text);
    const size = parse(text.replace(/^\s*[-−–+]/, ""));
    return size === undefined ? undefined : below ? -size : size;
  };
}

export const parseSigned = signedBy(parseNumber);

/** With its sign, as a change or a difference. */
export function signed(value: number, format: (value: number) => string): string {
  const text = format(value);
  return value > 0 && !isNothing(text) ? `+${text}` : text;
}

/** A probability as whole percent, never claiming certainty. */
export function chance(probability: number): string {
  return String(Math.min(99, Math.max(1, Math.round(100 * probability))));
}
