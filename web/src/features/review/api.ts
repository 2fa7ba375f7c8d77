import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api } from "../../shared/api/client";

const REVIEW = "/api/v1/rounds/{round_id}/review";
const round = (roundId: string) => ({ params: { path: { round_id: roundId } } });

export function useReview(roundId: string) {
  return $api.useQuery("get", REVIEW, round(roundId));
}

/** Keeps decisions; steps, and the next round's choices, say something else afterwards. */
export function useSaveReview(roundId: string) {
  const queries = useQueryClient();
  const changed = useRoundChanged("/review");
  const saving = $api.useMutation("put", REVIEW, {
    onSuccess: (view) => {
      queries.setQueryData($api.queryOptions("get", REVIEW, round(roundId)).queryKey, view);
      return changed();
    },
  });
  return {
    error: saving.error,
    pending: saving.isPending,
    save: (body: Parameters<typeof saving.mutate>[0]["body"]) => saving.mutate({ ...round(roundId), body }),
  };
}

export function useTrends(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}/trends", {
    params: { path: { client_id: clientId } },
  });
}
