import { useQueryClient } from "@tanstack/react-query";
import { useReadAgain } from "./changes";
import { $api, type Schemas } from "./client";

const SET_UP = "/api/v1/clients/{client_id}/set-ups/{exercise}";

/** How an exercise's station is set for a client, and what the coach's hand found. */
export function useSetUp(clientId: string, exercise: string) {
  const queries = useQueryClient();
  const readAgain = useReadAgain();
  const init = { params: { path: { client_id: clientId, exercise } } };
  const shown = $api.useQuery("get", SET_UP, init);
  const saving = $api.useMutation("patch", SET_UP, {
    onSuccess: (view) => {
      queries.setQueryData($api.queryOptions("get", SET_UP, init).queryKey, view);
      void readAgain("/api/v1/rounds/{round_id}/plan");
    },
  });
  return {
    kept: shown.data?.kept,
    /** Numbers that its kit has. */
    fields: shown.data?.fields,
    saved: saving.isSuccess,
    error: shown.error ?? saving.error,
    /** Changes what it names; null forgets it, and the rest stays as the server has it. */
    keep: (change: Partial<Schemas["KeptSetUp"]>) => saving.mutate({ ...init, body: change }),
  };
}
