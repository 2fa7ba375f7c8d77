import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { ownWeek, useSolve, type useWeek } from "./api";
import { differing, type Week } from "./model";

type Replaced = Schemas["ReplacedView"][];

/** What changes a week as a whole: solved anew, back to the planner's, taken from elsewhere. Each is one step back. */
export function useWholeWeek(roundId: string, document: ReturnType<typeof useWeek>, onChange: () => void) {
  const { solve, pending, error } = useSolve(roundId);
  const [dropped, setDropped] = useState<string[]>([]);
  // What was changed of a week that was taken, with the week before it: one step back takes the note along.
  const [taken, setTaken] = useState<{ before: Week; replaced: Replaced }>();
  const [seed, setSeed] = useState(1);
  const week = document.value;
  const change = (next: Week, from?: Replaced) => {
    setTaken(from && { before: week, replaced: from });
    document.change(next);
  };
  return {
    solving: pending,
    error,
    /** What could not stay in a week that was solved anew. */
    dropped,
    replaced: taken && differing(week, taken.before) > 0 ? taken.replaced : undefined,
    seen: () => setTaken(undefined),
    solve: async (asked: { days?: number; minutes?: number; another?: boolean }) => {
      const next = asked.another ? seed + 1 : seed;
      setSeed(next);
      onChange();
      const body = {
        week: { ...week, minutes: asked.minutes ?? week.minutes },
        days: asked.days,
        seed: next,
      };
      const answer = await solve(body).catch(() => undefined);
      if (!answer) return;
      setDropped(answer.dropped);
      change(answer.week);
    },
    // The planner's week stands there at once and is kept like a change by hand, so that one step back gives the coach's again.
    back: async () => {
      onChange();
      const own = await ownWeek(roundId).catch(() => undefined);
      if (own) change(own);
    },
    take: (copied: { week: Week; replaced: Replaced }) => {
      onChange();
      change(copied.week, copied.replaced);
    },
  };
}
