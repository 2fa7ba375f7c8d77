// Supersets and giant sets: neighbouring cards that share a letter. Pure.
import { lettered, runs } from "./lettered";
import { type Card, cardAt, mayStand, type Spot, type Week } from "./model";

export { lettered, runs };

/** Cards of a group at most; the planner says so too. */
export const MOST_IN_A_GROUP = 4;

/** What a card of a day is called where it is in a group: A1, A2. */
export function groupMark(items: Pick<Card, "group">[], place: number): string | undefined {
  const run = runs(items).find(({ from, to }) => place >= from && place < to);
  return run?.group && run.to - run.from > 1 ? `${run.group}${place - run.from + 1}` : undefined;
}

const onDay = (week: Week, session: number, items: Card[]): Week => ({
  ...week,
  sessions: week.sessions.map((day, index) => (index === session ? { ...day, items: lettered(items) } : day)),
});

/** A letter that nothing of the day has. */
const fresh = "?";

/** Whether a card can be done in turns with the one after it. */
export function joinable(items: Card[], place: number): boolean {
  const own = runs(items).find(({ from, to }) => place >= from && place < to);
  if (!own || own.to !== place + 1) return false;
  const next = runs(items).find(({ from }) => from === own.to);
  return next !== undefined && next.to - own.from <= MOST_IN_A_GROUP;
}

/** The week with a card and the one after it in turns, with whatever each is in turns with already. */
export function joined(week: Week, { session, place }: Spot): Week {
  const items = week.sessions[session]?.items ?? [];
  if (!joinable(items, place)) return week;
  const own = runs(items).find(({ to }) => to === place + 1);
  const next = runs(items).find(({ from }) => from === place + 1);
  const together = (index: number) => own && next && index >= own.from && index < next.to;
  return onDay(
    week,
    session,
    items.map((card, index) => (together(index) ? { ...card, group: fresh } : card)),
  );
}

/** The week with a card by itself again; those before and after it stay in turns among themselves. */
export function parted(week: Week, { session, place }: Spot): Week {
  const items = week.sessions[session]?.items ?? [];
  const run = runs(items).find(({ from, to }) => place >= from && place < to);
  if (!run?.group) return week;
  return onDay(
    week,
    session,
    items.map((card, index) => {
      if (index === place) return { ...card, group: undefined };
      return index > place && index < run.to ? { ...card, group: fresh } : card;
    }),
  );
}

/** The week with a card brought behind another and done in turns with it. */
export function together(week: Week, from: Spot, onto: Spot): Week {
  const card = cardAt(week, from);
  const target = cardAt(week, onto);
  if (!card || !target || card === target) return week;
  if (from.session !== onto.session && !mayStand(week, onto.session, card.exercise)) return week;
  const left = onDay(
    week,
    from.session,
    (week.sessions[from.session]?.items ?? []).filter((other) => other !== card),
  );
  const items = left.sessions[onto.session]?.items ?? [];
  const place = items.findIndex(({ exercise }) => exercise === target.exercise);
  const run = runs(items).find(({ from, to }) => place >= from && place < to);
  if (!run || run.to - run.from >= MOST_IN_A_GROUP) return week;
  const group = run.group ?? fresh;
  const marked = items.map((other, index) => (index === place ? { ...other, group } : other));
  return onDay(left, onto.session, [
    ...marked.slice(0, place + 1),
    { ...card, group },
    ...marked.slice(place + 1),
  ]);
}

/** The week with exercises that go well together after a card, in turns with it; what stands on the day already is brought there. */
export function withPartners(week: Week, { session, place }: Spot, exercises: string[]): Week {
  const first = cardAt(week, { session, place });
  if (!first) return week;
  return exercises.reduce((changed, exercise, index) => {
    const items = changed.sessions[session]?.items ?? [];
    const before = index === 0 ? first.exercise : (exercises[index - 1] as string);
    const onto = { session, place: items.findIndex((card) => card.exercise === before) };
    const there = items.findIndex((card) => card.exercise === exercise);
    if (there >= 0) return together(changed, { session, place: there }, onto);
    const added = onDay(changed, session, [...items, { exercise, sets: first.sets }]);
    return together(added, { session, place: items.length }, onto);
  }, week);
}
