// Where values over days lie in a chart, and which of them is read.
import { scaleLinear, scaleTime } from "@visx/scale";

/** A value on a day with half its noise band; 0 where no error is known. */
export interface Mark {
  on: string;
  value: number;
  band: number;
  /** What it comes from where that is not the usual way: drawn hollow, and said. */
  otherwise?: string;
}

/** Lowest and highest value shown. */
export type Span = [number, number];

interface Frame {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The scales of a chart: days along, values up. A single day stands in the middle, and so does a single value. */
export function laidOut(marks: Mark[], { left, right, top, bottom }: Frame, span?: Span) {
  const days = marks.map(({ on }) => Date.parse(on));
  const [from, to] = [Math.min(...days), Math.max(...days)];
  const low = span ? span[0] : Math.min(...marks.map(({ value, band }) => value - band));
  const high = span ? span[1] : Math.max(...marks.map(({ value, band }) => value + band));
  const [centre, middle] = [(left + right) / 2, (top + bottom) / 2];
  return {
    x: scaleTime<number>({ domain: [from, to], range: to > from ? [left + 5, right] : [centre, centre] }),
    y: scaleLinear<number>({
      domain: [low, high],
      range: high > low ? [bottom - 4, top] : [middle, middle],
      clamp: true,
    }),
  };
}

/** The days written under a chart: its first and its last. */
export const ticksOf = (marks: Mark[]): string[] => [
  ...new Set([marks[0]?.on, marks.at(-1)?.on].filter((on) => on !== undefined)),
];

/** Closer than this, px, two numbers run into each other. */
const APART = 13;

/** The values written beside a chart: its span and its level, or the least and the largest where there is no span. */
export function valueTicks(
  marks: Mark[],
  y: (value: number) => number,
  span?: Span,
  level?: number,
): number[] {
  const values = marks.map(({ value }) => value);
  const ends = span ?? [Math.min(...values), Math.max(...values)];
  const wanted = level === undefined ? [ends[1], ends[0]] : [ends[1], level, ends[0]];
  const kept: number[] = [];
  for (const value of wanted) if (kept.every((one) => Math.abs(y(one) - y(value)) >= APART)) kept.push(value);
  return kept;
}

/** The place of what lies nearest. */
export const nearest = (places: number[], at: number): number =>
  places.reduce((best, place, index) => {
    const before = places[best] ?? Number.POSITIVE_INFINITY;
    return Math.abs(place - at) < Math.abs(before - at) ? index : best;
  }, 0);

/** The place that a key goes to among so many values; nothing for other keys. */
export function stepped(key: string, at: number, count: number): number | undefined {
  const to = {
    ArrowLeft: at - 1,
    ArrowDown: at - 1,
    ArrowRight: at + 1,
    ArrowUp: at + 1,
    Home: 0,
    End: count - 1,
  }[key];
  return to === undefined ? undefined : Math.min(count - 1, Math.max(0, to));
}
