import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api, type Schemas } from "../../shared/api/client";

const init = (roundId: string) => ({ params: { path: { round_id: roundId } } });

export function useVerdict(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/verdict", init(roundId));
}

/** Sends the choices; the verdict that comes back carries the new classes. */
export function useSendChoices(roundId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged("/api/v1/rounds/{round_id}/verdict");
  const saving = $api.useMutation("put", "/api/v1/rounds/{round_id}/choices", {
    onSuccess: (verdict) => {
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/rounds/{round_id}/verdict", init(roundId)).queryKey,
        verdict,
      );
      changed();
    },
  });
  return (revision: number, choices: Schemas["ChoicesEntry"]) =>
    saving.mutateAsync({ ...init(roundId), body: { revision, choices } });
}
