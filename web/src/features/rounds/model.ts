// The eight steps and the way between rounds.

export const STEPS = ["brief", "photos", "tape", "tests", "verdict", "plan", "log", "review"] as const;
export type Step = (typeof STEPS)[number];

/** The key that goes to a step, after `g`. */
export const STEP_KEYS: Record<Step, string> = {
  brief: "b",
  photos: "p",
  tape: "t",
  tests: "e",
  verdict: "v",
  plan: "w",
  log: "l",
  review: "r",
};

export function isStep(text: string | undefined): text is Step {
  return STEPS.some((step) => step === text);
}

/** The rounds beside one; rounds are listed newest first. */
export function neighbours<T extends { id: string }>(rounds: T[], id: string): { older?: T; newer?: T } {
  const at = rounds.findIndex((round) => round.id === id);
  return at < 0 ? {} : { older: rounds[at + 1], newer: rounds[at - 1] };
}
