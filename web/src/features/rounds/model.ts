// The eight steps and the way between rounds.
import type { Act } from "../../shared/api/may";
import type { Act as KeyAct } from "../../shared/ui/acts";

export const STEPS = ["brief", "photos", "tape", "tests", "verdict", "plan", "log", "review"] as const;
export type Step = (typeof STEPS)[number];

/** What goes to a step by key. */
export const STEP_KEYS = {
  brief: "goBrief",
  photos: "goPhotos",
  tape: "goTape",
  tests: "goTests",
  verdict: "goVerdict",
  plan: "goPlan",
  log: "goLog",
  review: "goReview",
} as const satisfies Record<Step, KeyAct>;

/** What somebody must be allowed to do to change a step; steps that everybody works on are not in it. */
export const STEP_ACTS: Partial<Record<Step, Act>> = {
  brief: "brief",
  verdict: "judge",
  plan: "plan",
  review: "judge",
};

export function isStep(text: string | undefined): text is Step {
  return STEPS.some((step) => step === text);
}

/** The rounds beside one; rounds are listed newest first. */
export function neighbours<T extends { id: string }>(rounds: T[], id: string): { older?: T; newer?: T } {
  const at = rounds.findIndex((round) => round.id === id);
  return at < 0 ? {} : { older: rounds[at + 1], newer: rounds[at - 1] };
}
