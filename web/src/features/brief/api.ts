import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api } from "../../shared/api/client";

const clientInit = (id: string) => ({ params: { path: { client_id: id } } });

export function useBrief(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}", clientInit(clientId));
}

/** Saves a brief; the answer takes the place of what was cached. */
export function useSaveBrief(clientId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged();
  return $api.useMutation("put", "/api/v1/clients/{client_id}", {
    onSuccess: async (saved) => {
      await changed();
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/clients/{client_id}", clientInit(clientId)).queryKey,
        saved,
      );
    },
  });
}

export function useAddClient() {
  const changed = useRoundChanged();
  return $api.useMutation("post", "/api/v1/clients", { onSuccess: changed });
}

export function useWithdrawConsent() {
  const changed = useRoundChanged();
  return $api.useMutation("post", "/api/v1/clients/{client_id}/consent/withdraw", { onSuccess: changed });
}
