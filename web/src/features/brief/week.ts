// A usual week as it is typed. Pure.
import type { Schemas } from "../../shared/api/client";

export type UsualWeek = Schemas["UsualWeek"];
export type UsualExercise = Schemas["UsualExercise"];

/** The week, or nothing when nobody asked. */
export interface Typing {
  week?: UsualWeek;
}

export const emptyWeek = (until: string): UsualWeek => ({ until, weeks: 4, exercises: [] });

export const newExercise = (exercises: UsualExercise[], exercise: string): UsualExercise => ({
  session: exercises.at(-1)?.session ?? 1,
  exercise,
  sets: 3,
  one_sided: false,
});

/** A day of last week: this week is not over. */
export function lastWeek(today: string): string {
  const day = new Date(`${today}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() - 7);
  return day.toISOString().slice(0, 10);
}

export function differing({ week: mine }: Typing, { week: theirs }: Typing): number {
  if (!mine || !theirs) return Number(mine !== theirs);
  const rows = Math.max(mine.exercises.length, theirs.exercises.length);
  const apart = Array.from({ length: rows }, (_, row) => row).filter(
    (row) => key(mine.exercises[row]) !== key(theirs.exercises[row]),
  ).length;
  return apart + Number(mine.until !== theirs.until) + Number(mine.weeks !== theirs.weeks);
}

const key = (one: UsualExercise | undefined): string =>
  one ? [one.session, one.exercise, one.sets, one.one_sided, one.reps ?? "", !!one.swung].join(" ") : "";

/** The server's problems by row, or `until` and `weeks`. */
export function problemsByRow(errors: Schemas["Problem"][] | undefined): Record<string, string> {
  return Object.fromEntries(
    (errors ?? []).map(({ pointer, says }) => {
      const [, , field = "", row] = pointer.split("/");
      return [row ?? field, says];
    }),
  );
}
