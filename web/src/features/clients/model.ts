// What a line of the list offers next. Pure, so that it is tested without a page.
import type { Schemas } from "../../shared/api/client";

type Summary = Schemas["ClientSummary"];

export interface NextStep {
  label: "openRound" | "toTape" | "toVerdict" | "toPlan";
  to: string;
}

/** The one thing to do next for a client, and the exact place. */
export function nextStep(client: Summary): NextStep {
  const round = client.newest;
  if (!round) return { label: "openRound", to: `/clients/${client.id}` };
  const base = `/clients/${client.id}/rounds/${round.id}`;
  if (client.verdict?.missing.length) return { label: "toTape", to: `${base}/tape` };
  if (client.verdict?.bring_up.length) return { label: "toPlan", to: `${base}/plan` };
  return { label: "toVerdict", to: `${base}/verdict` };
}

/** Where a line leads: the newest round, or the client when there is none. */
export function lineTarget(client: Summary): string {
  return client.newest ? `/clients/${client.id}/rounds/${client.newest.id}/verdict` : `/clients/${client.id}`;
}
