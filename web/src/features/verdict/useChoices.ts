import { useEffect } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../shared/api/client";
import { type Document, useDocument } from "../../shared/save";
import { useSendChoices } from "./api";
import { type Choices, differing } from "./model";

type Verdict = Schemas["VerdictView"];

const EDIT = "verdict-edit";
/** Time from an edit to the verdict drawn anew, for whoever measures. */
const REDRAWN = "verdict-redrawn";

/** What was chosen on a verdict: shown at once, kept at once, taken back by one step. */
export function useChoices(
  roundId: string,
  verdict: Verdict,
  refetch: () => Promise<Verdict | undefined>,
): Document<Verdict, Choices> {
  const { t } = useTranslation();
  const send = useSendChoices(roundId);
  const document = useDocument<Verdict, Choices>(verdict, {
    key: `choices-${roundId}`,
    revisionOf: ({ choices_revision }) => choices_revision,
    valueOf: ({ choices }) => choices,
    differing,
    fields: { named: ([what = ""]) => t(`verdict.chosenParts.${what as keyof Choices}`) },
    refetch,
    pause_ms: 0,
    send: (known, choices) => {
      performance.mark(EDIT);
      return send(known.choices_revision, choices);
    },
  });
  useEffect(() => {
    // Two frames on, what this verdict says is on the screen.
    const drawn = () => {
      if (verdict && performance.getEntriesByName(EDIT).length === 0) return;
      performance.measure(REDRAWN, EDIT);
      performance.clearMarks(EDIT);
    };
    requestAnimationFrame(() => requestAnimationFrame(drawn));
  }, [verdict]);
  return document;
}
