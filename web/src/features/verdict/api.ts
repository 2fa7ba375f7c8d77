import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api } from "../../shared/api/client";

const init = (roundId: string) => ({ params: { path: { round_id: roundId } } });

export function useVerdict(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/verdict", init(roundId));
}

/** Saves the choices; the verdict that comes back carries the new classes. */
export function useSaveChoices(roundId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged();
  return $api.useMutation("put", "/api/v1/rounds/{round_id}/choices", {
    onSuccess: (verdict) => {
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/rounds/{round_id}/verdict", init(roundId)).queryKey,
        verdict,
      );
      changed();
    },
  });
}
