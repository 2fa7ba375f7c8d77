import { useQueryClient } from "@tanstack/react-query";
import type { paths } from "../../api/schema";

/** What can be read. */
export type Reads = { [P in keyof paths]: paths[P] extends { get: object } ? P : never }[keyof paths];

/** What says something else once a step was saved. Tape, tests and usual week are not among it: they give their own answer to a save. */
const REST_ON_STEPS = [
  "/api/v1/clients",
  "/api/v1/clients/{client_id}",
  "/api/v1/clients/{client_id}/belongings",
  "/api/v1/clients/{client_id}/links",
  "/api/v1/clients/{client_id}/log",
  "/api/v1/clients/{client_id}/messages",
  "/api/v1/clients/{client_id}/note",
  "/api/v1/clients/{client_id}/repeats",
  "/api/v1/clients/{client_id}/reported",
  "/api/v1/clients/{client_id}/set-ups",
  "/api/v1/clients/{client_id}/set-ups/{exercise}",
  "/api/v1/clients/{client_id}/trends",
  "/api/v1/clients/{client_id}/week",
  "/api/v1/rounds/{round_id}",
  "/api/v1/rounds/{round_id}/note",
  "/api/v1/rounds/{round_id}/photos",
  "/api/v1/rounds/{round_id}/plan",
  "/api/v1/rounds/{round_id}/plan/exercises",
  "/api/v1/rounds/{round_id}/plan/own",
  "/api/v1/rounds/{round_id}/review",
  "/api/v1/rounds/{round_id}/verdict",
] as const satisfies readonly Reads[];

/** Has everything of these addresses read again, whosever it is. */
export function useReadAgain() {
  const client = useQueryClient();
  return (...reads: Reads[]) => {
    const again = new Set<unknown>(reads);
    return client.invalidateQueries({ predicate: ({ queryKey }) => again.has(queryKey[1]) });
  };
}

/** After a step was saved: steps, verdict, plan and lists say something else. What was saved, `own`, knows already. */
export function useRoundChanged(...own: Reads[]) {
  const readAgain = useReadAgain();
  return () => readAgain(...REST_ON_STEPS.filter((read) => !own.includes(read)));
}
