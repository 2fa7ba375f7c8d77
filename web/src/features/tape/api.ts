import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api } from "../../shared/api/client";

const init = (roundId: string) => ({ params: { path: { round_id: roundId } } });

export function useSheet(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/tape", init(roundId), {
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** Saves the sheet; the answer, with everything computed from it, takes the place of what was cached. */
export function useSaveSheet(roundId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged();
  return $api.useMutation("put", "/api/v1/rounds/{round_id}/tape", {
    onSuccess: (sheet) => {
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/rounds/{round_id}/tape", init(roundId)).queryKey,
        sheet,
      );
      changed();
    },
  });
}
