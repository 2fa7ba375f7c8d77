// Numbers as they are shown: girths to 0.1 cm, percentages to one decimal, no false digits, a real minus sign.

function fixed(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
}

export const cm = (value: number): string => fixed(value, 1);
export const mm = (value: number): string => fixed(value, 1);
export const kg = (value: number): string => fixed(value, 1);
export const degrees = (value: number): string => `${fixed(value, 0)}°`;
export const percent = (value: number): string => fixed(value, 1);
export const sd = (value: number): string => fixed(value, 1);
export const sets = (value: number): string => fixed(value, Number.isInteger(value) ? 0 : 1);

/** A number from a typed text, with a point or a comma; `undefined` when it is none. */
export function parseNumber(text: string): number | undefined {
  const plain = text.trim().replace(",", ".");
  return /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : undefined;
}

/** A number that may lie under 0, with any minus sign. */
export function parseSigned(text: string): number | undefined {
  const below = /^\s*[-−–]/.test(text);
  const size = parseNumber(text.replace(/^\s*[-−–+]/, ""));
  return size === undefined ? undefined : below ? -size : size;
}

/** With its sign, as a change or a difference. */
export function signed(value: number, format: (value: number) => string): string {
  const text = format(value);
  return value > 0 && Number(text) !== 0 ? `+${text}` : text;
}

/** A probability as whole percent, never claiming certainty. */
export function chance(probability: number): string {
  return String(Math.min(99, Math.max(1, Math.round(100 * probability))));
}
