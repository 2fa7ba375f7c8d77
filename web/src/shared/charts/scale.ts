// The two scales every chart shares, so that marks mean the same everywhere.

/** SD shown to either side of the plumb line; further marks rest at the edge. */
export const PLUMB_SD = 3;
/** Percent shown to either side of the left-right line. */
export const LEAN_PCT = 8;
/** 95 % of a normal distribution lies within this many SD. */
export const WHISKER = 1.96;

export interface Span {
  from: number;
  at: number;
  to: number;
}

/** From one edge to the other; a scale of the chart library would cost the list of clients 11 kB for these lines. */
function clamped(reach: number, width: number, margin: number): (value: number) => number {
  const share = (value: number) => (Math.min(Math.max(value, -reach), reach) + reach) / (2 * reach);
  return (value) => margin + (width - 2 * margin) * share(value);
}

/** Where a mark and its whisker lie on a plumb line `width` wide; smaller is further behind. */
export function plumbSpan(mean: number, sd: number, width: number): Span {
  const x = clamped(PLUMB_SD, width, 6);
  return { from: x(mean - WHISKER * sd), at: x(mean), to: x(mean + WHISKER * sd) };
}

/** Where a left-right bar ends and how far error alone reaches. Left larger leans to the left. */
export function leanSpan(percent: number, se: number, width: number, reach = LEAN_PCT): Span {
  const x = clamped(reach, width, 4);
  return { from: x(-WHISKER * se), at: x(-percent), to: x(WHISKER * se) };
}
