// The week as a coach bends it, and how a plan is put into words and rows. Pure.
import type { Schemas } from "../../shared/api/client";
import { lettered } from "./lettered";

export type Item = Schemas["ItemEntry"];
export type LedgerRow = Schemas["LedgerEntry"];
export type Week = Schemas["WeekDraft"];
export type Card = Schemas["CardDraft"];
export type Plan = Schemas["PlanFile"];

/** Where a card stands: place of its day in the week and its place in the day, both from 0. */
export interface Spot {
  session: number;
  place: number;
}

export const SETS = { least: 1, most: 10 };

/** A rule, as the planner names it, as a sentence of its own. */
export const sentence = (rule: string): string => `${rule.charAt(0).toUpperCase()}${rule.slice(1)}.`;

export type PartRow = Schemas["PartRow"];

/** A big part with its regions; the last group holds the regions of no part. */
export interface PartGroup {
  row?: PartRow;
  regions: LedgerRow[];
  /** Something of it is to be brought up. */
  chosen: boolean;
}

/** The ledger by big part, each region inside its own. */
export function partGroups({ ledger, parts }: Pick<Plan, "ledger" | "parts">): PartGroup[] {
  const groupOf = (regions: LedgerRow[], row?: PartRow): PartGroup => ({
    row,
    regions,
    chosen: regions.some((region) => region.class === "bring-up"),
  });
  const own = (parts ?? []).map((row) =>
    groupOf(
      ledger.filter(({ region }) => row.regions.includes(region)),
      row,
    ),
  );
  const placed = new Set((parts ?? []).flatMap(({ regions }) => regions));
  const others = ledger.filter(({ region }) => !placed.has(region));
  return others.length > 0 ? [...own, groupOf(others)] : own;
}

const JOINTS = ["shoulder", "elbow", "wrist", "low-back", "neck", "knee", "hip", "ankle"] as const;

/** Whether a load is one on a joint. */
export const isJoint = (of: string): of is (typeof JOINTS)[number] => JOINTS.some((joint) => joint === of);

/** What a week loads, nearest to its limit first: what comes near, and what hurts; or everything. */
export function shownLoads(loads: Schemas["LoadRow"][], all: boolean): Schemas["LoadRow"][] {
  const share = ({ load, limit }: Schemas["LoadRow"]) => (limit > 0 ? load / limit : load > 0 ? 2 : 0);
  const sorted = [...loads].sort((one, other) => share(other) - share(one));
  return all ? sorted : sorted.filter((row, place) => place < 4 || row.pain > 0);
}

/** Sets at the right end of the ledger's bars: enough for the widest band and the fullest row. */
export function ledgerEnd(ledger: LedgerRow[]): number {
  return Math.max(20, ...ledger.map(({ total, high }) => Math.max(total, high)));
}

/** The side that goes first, if one does. */
export function firstSide(item: Item): Schemas["Side"] | undefined {
  if (item.sides === "both") return undefined;
  return item.sides === "left-first" ? "left" : "right";
}

function withDay(week: Week, session: number, change: (items: Card[]) => Card[]): Week {
  const sessions = week.sessions.map((day, index) =>
    index === session ? { ...day, items: lettered(change(day.items)) } : day,
  );
  return { ...week, sessions };
}

export const cardAt = (week: Week, { session, place }: Spot): Card | undefined =>
  week.sessions[session]?.items[place];

/** Whether an exercise may come to a day: it stands there once at most. */
export function mayStand(week: Week, session: number, exercise: string): boolean {
  return week.sessions[session]?.items.every((card) => card.exercise !== exercise) ?? false;
}

/** The week with a card at another spot; the same week where it cannot go there. */
export function moved(week: Week, from: Spot, to: Spot): Week {
  const card = cardAt(week, from);
  if (!card || !week.sessions[to.session]) return week;
  if (from.session === to.session && from.place === to.place) return week;
  if (from.session !== to.session && !mayStand(week, to.session, card.exercise)) return week;
  const without = withDay(week, from.session, (items) => items.filter((_, place) => place !== from.place));
  return withDay(without, to.session, (items) => {
    // Between two cards of a group it joins them; beside its own group it stays in it; else it stands by itself.
    const [before, after] = [items[to.place - 1]?.group, items[to.place]?.group];
    const own = from.session === to.session ? card.group : undefined;
    const group =
      before && before === after ? before : own && (own === before || own === after) ? own : undefined;
    return [...items.slice(0, to.place), { ...card, group }, ...items.slice(to.place)];
  });
}

/** The spot one step away, up and down within the day, left and right to another; undefined at the edge. */
export function beside(
  week: Week,
  { session, place }: Spot,
  step: "up" | "down" | "left" | "right",
): Spot | undefined {
  const here = week.sessions[session]?.items.length ?? 0;
  if (step === "up") return place > 0 ? { session, place: place - 1 } : undefined;
  if (step === "down") return place + 1 < here ? { session, place: place + 1 } : undefined;
  const other = session + (step === "left" ? -1 : 1);
  const there = week.sessions[other]?.items.length;
  return there === undefined ? undefined : { session: other, place: Math.min(place, there) };
}

export function changed(week: Week, { session, place }: Spot, change: Partial<Card>): Week {
  return withDay(week, session, (items) =>
    items.map((card, index) => (index === place ? { ...card, ...change } : card)),
  );
}

export function withSets(week: Week, spot: Spot, by: number): Week {
  const card = cardAt(week, spot);
  if (!card) return week;
  return changed(week, spot, { sets: Math.min(SETS.most, Math.max(SETS.least, card.sets + by)) });
}

export function without(week: Week, { session, place }: Spot): Week {
  return withDay(week, session, (items) => items.filter((_, index) => index !== place));
}

/** The week with a card more: a chosen region's opens the day, others come last. */
export function added(week: Week, session: number, exercise: string, opens = false, sets = 3): Week {
  if (!mayStand(week, session, exercise)) return week;
  const card = { exercise, sets };
  return withDay(week, session, (items) => (opens ? [card, ...items] : [...items, card]));
}

/** The week on other weekdays; days stay in order, so one that is taken is refused. */
export function onDay(week: Week, session: number, day: number): Week {
  if (week.sessions.some((other, index) => index !== session && other.day === day)) return week;
  const sessions = week.sessions.map((other, index) => (index === session ? { ...other, day } : other));
  return { ...week, sessions: sessions.sort((one, other) => one.day - other.day) };
}

export const lockedCount = (week: Week): number =>
  week.sessions.flatMap(({ items }) => items).filter(({ locked }) => locked).length;

/** What the planner says of a card; nothing while a change of the day is on its way. */
export function itemAt(plan: Plan, week: Week, { session, place }: Spot): Item | undefined {
  const exercise = cardAt(week, { session, place })?.exercise;
  const here = plan.sessions[session]?.items.find((item) => item.exercise === exercise);
  return here ?? plan.sessions.flatMap(({ items }) => items).find((item) => item.exercise === exercise);
}

/** What stands in a card's place in a week of the block: itself, or what takes turns with it. */
export function standing(card: Card, item: Item | undefined, week: Plan["weeks"][number] | undefined) {
  const other = week?.turned ? item?.in_turn : undefined;
  if (!other) return { card, item };
  const scheme = other.scheme === "straight" ? undefined : other.scheme;
  return { card: { exercise: other.exercise, sets: card.sets, group: card.group, scheme }, item: other };
}

/** Broken rules of a card. */
export function brokenAt(plan: Plan, session: number, exercise: string): string[] {
  const here = (broken: Schemas["Broken"]) =>
    broken.cards.some((card) => card.session === session && card.exercise === exercise);
  return (plan.broken ?? []).filter(here).map(({ says }) => says);
}

/** What goes well straight after an exercise, in order, and why. */
export function pairingsOf(atlas: Pick<Schemas["AtlasView"], "pairings">, exercise: string) {
  return atlas.pairings.flatMap(({ exercises, why }) => {
    const next = exercises.slice(exercises.indexOf(exercise) + 1);
    return exercises.includes(exercise) && next.length > 0 ? [{ next, why }] : [];
  });
}

/** Places at which two weeks differ. */
export function differing(mine: Week, theirs: Week): number {
  let count = Number(mine.minutes !== theirs.minutes) + Number(mine.weeks !== theirs.weeks);
  const days = Math.max(mine.sessions.length, theirs.sessions.length);
  for (let session = 0; session < days; session++) {
    const [one, other] = [mine.sessions[session], theirs.sessions[session]];
    count += Number(one?.day !== other?.day);
    const cards = Math.max(one?.items.length ?? 0, other?.items.length ?? 0);
    for (let place = 0; place < cards; place++)
      count += Number(JSON.stringify(one?.items[place]) !== JSON.stringify(other?.items[place]));
  }
  return count;
}

/** The week with another exercise on a card: what was written of the first does not hold for it. */
export function swapped(week: Week, spot: Spot, exercise: string): Week {
  const { rest_s, reserve } = cardAt(week, spot)?.written ?? {};
  const kept = Object.fromEntries(Object.entries({ rest_s, reserve }).filter(([, value]) => value != null));
  return changed(week, spot, { exercise, written: Object.keys(kept).length > 0 ? kept : undefined });
}

export interface Difference {
  day: number;
  exercise: string;
  before: number;
  now: number;
}

/** Exercises whose sets on a weekday differ between two weeks; 0 where it is not done. */
export function differences(then: Week, now: Week): Difference[] {
  const sets = (week: Week) =>
    new Map(
      week.sessions.flatMap(({ day, items }) => items.map((card) => [`${day} ${card.exercise}`, card.sets])),
    );
  const [before, after] = [sets(then), sets(now)];
  return [...new Set([...before.keys(), ...after.keys()])]
    .map((key) => {
      const [day, exercise] = key.split(" ") as [string, string];
      return { day: Number(day), exercise, before: before.get(key) ?? 0, now: after.get(key) ?? 0 };
    })
    .filter((one) => one.before !== one.now)
    .sort((one, other) => one.day - other.day || one.exercise.localeCompare(other.exercise));
}

/** Regions whose weekly sets differ between two plans, largest change first. */
export function ledgerDifferences(then: Plan, now: Plan): { region: string; before: number; now: number }[] {
  const before = new Map(then.ledger.map((row) => [row.region, row.total]));
  return now.ledger
    .map(({ region, total }) => ({ region, before: before.get(region) ?? 0, now: total }))
    .filter((row) => Math.abs(row.now - row.before) > 0.05)
    .sort((one, other) => Math.abs(other.now - other.before) - Math.abs(one.now - one.before));
}

/** The Monday of a day's week, `YYYY-MM-DD`. */
export function thisMonday(today: Date): string {
  const before = new Date(today);
  before.setDate(before.getDate() - 7);
  return nextMonday(before);
}

/** The spot of a card by its day and exercise: `0 db-curl`. */
export function spotOfKey(week: Week, key: string): Spot | undefined {
  const [day, exercise] = key.split(" ");
  const session = Number(day);
  const place = week.sessions[session]?.items.findIndex((card) => card.exercise === exercise) ?? -1;
  return place < 0 ? undefined : { session, place };
}

/** The first card of an exercise. */
export function spotOf(week: Week, exercise: string): Spot | undefined {
  for (const [session, { items }] of week.sessions.entries()) {
    const place = items.findIndex((card) => card.exercise === exercise);
    if (place >= 0) return { session, place };
  }
  return undefined;
}

/** The Monday after a day, `YYYY-MM-DD`. */
export function nextMonday(today: Date): string {
  const day = new Date(today);
  day.setDate(day.getDate() + ((8 - day.getDay()) % 7 || 7));
  const two = (number: number) => String(number).padStart(2, "0");
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}
