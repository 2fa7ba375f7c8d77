import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api, type Schemas } from "../../shared/api/client";

const REVIEW = "/api/v1/rounds/{round_id}/review";
const round = (roundId: string) => ({ params: { path: { round_id: roundId } } });

export function useReview(roundId: string) {
  return $api.useQuery("get", REVIEW, round(roundId));
}

/** Keeps decisions, and gives the next round back what it had; steps and the next round's choices say something else afterwards. */
export function useSaveReview(roundId: string, nextId: string) {
  const queries = useQueryClient();
  const changed = useRoundChanged("/api/v1/rounds/{round_id}/review");
  const { queryKey } = $api.queryOptions("get", REVIEW, round(roundId));
  const saving = $api.useMutation("put", REVIEW, {
    onSuccess: (view) => {
      queries.setQueryData(queryKey, view);
      return changed();
    },
  });
  const restoring = $api.useMutation("put", "/api/v1/rounds/{round_id}/choices", {
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey });
      return changed();
    },
  });
  // Why it was refused is told by `error`.
  const done = (sent: Promise<unknown>) => sent.then(() => true).catch(() => false);
  return {
    error: saving.error ?? restoring.error,
    pending: saving.isPending || restoring.isPending,
    save: (body: Schemas["SaveReview"]) => done(saving.mutateAsync({ ...round(roundId), body })),
    restore: (body: Schemas["SaveChoices"]) => done(restoring.mutateAsync({ ...round(nextId), body })),
  };
}

export function useTrends(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}/trends", {
    params: { path: { client_id: clientId } },
  });
}
