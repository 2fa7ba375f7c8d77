import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api, type Schemas } from "../../shared/api/client";

const clientInit = (id: string) => ({ params: { path: { client_id: id } } });

export function useBrief(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}", clientInit(clientId));
}

/** Sends a brief; the answer takes the place of what was cached. */
export function useSendBrief(clientId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged();
  const saving = $api.useMutation("put", "/api/v1/clients/{client_id}", {
    onSuccess: (saved) => {
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/clients/{client_id}", clientInit(clientId)).queryKey,
        saved,
      );
      changed();
    },
  });
  return (revision: number, brief: Schemas["ClientEntry"]) =>
    saving.mutateAsync({ ...clientInit(clientId), body: { revision, brief } });
}

export function useAddClient() {
  const changed = useRoundChanged();
  return $api.useMutation("post", "/api/v1/clients", { onSuccess: changed });
}

export function useWithdrawConsent() {
  const changed = useRoundChanged();
  return $api.useMutation("post", "/api/v1/clients/{client_id}/consent/withdraw", { onSuccess: changed });
}

export function usePutAway() {
  const changed = useRoundChanged();
  return $api.useMutation("put", "/api/v1/clients/{client_id}/away", { onSuccess: changed });
}

/** What of a client would go with them. */
export function useBelongings(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}/belongings", clientInit(clientId));
}

export function useErase() {
  const client = useQueryClient();
  return $api.useMutation("delete", "/api/v1/clients/{client_id}", {
    // Nothing of them stays in this browser either.
    onSuccess: () =>
      client.removeQueries({ predicate: ({ queryKey }) => !String(queryKey[1]).endsWith("/session") }),
  });
}

export function useUsualWeek(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}/usual-week", clientInit(clientId));
}

export function useSendUsualWeek(clientId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged();
  const saving = $api.useMutation("put", "/api/v1/clients/{client_id}/usual-week", {
    onSuccess: (saved) => {
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/clients/{client_id}/usual-week", clientInit(clientId)).queryKey,
        saved,
      );
      changed();
    },
  });
  return (revision: number, week: Schemas["UsualWeek"] | undefined) =>
    saving.mutateAsync({ ...clientInit(clientId), body: { revision, week } });
}
