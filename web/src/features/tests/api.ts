import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api, fetchClient, type Schemas } from "../../shared/api/client";

const round = (roundId: string) => ({ params: { path: { round_id: roundId } } });
const client = (clientId: string) => ({ params: { path: { client_id: clientId } } });

export function useTests(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/tests", round(roundId));
}

export function useSendTests(roundId: string) {
  const queries = useQueryClient();
  const changed = useRoundChanged();
  const saving = $api.useMutation("put", "/api/v1/rounds/{round_id}/tests", {
    onSuccess: (sheet) => {
      queries.setQueryData(
        $api.queryOptions("get", "/api/v1/rounds/{round_id}/tests", round(roundId)).queryKey,
        sheet,
      );
      changed();
    },
  });
  return (revision: number, tests: Schemas["TestEntry"][]) =>
    saving.mutateAsync({ ...round(roundId), body: { revision, tests } });
}

export function useClient(clientId: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}", client(clientId));
}

/** Sends a client's screens with the rest of the brief as it is stored. */
export function useSendScreens(clientId: string) {
  const queries = useQueryClient();
  const changed = useRoundChanged();
  const saving = $api.useMutation("put", "/api/v1/clients/{client_id}", {
    onSuccess: async (saved) => {
      await changed();
      queries.setQueryData(
        $api.queryOptions("get", "/api/v1/clients/{client_id}", client(clientId)).queryKey,
        saved,
      );
    },
  });
  return (stored: Schemas["ClientView"], screens: Schemas["Screens"]) =>
    saving.mutateAsync({
      ...client(clientId),
      body: { revision: stored.revision, brief: { ...stored.brief, screens } },
    });
}

export function useAngle() {
  return $api.useMutation("post", "/api/v1/angle");
}

export async function askDynamometer(label: string): Promise<void> {
  await fetchClient.POST("/api/v1/devices/asked", { body: { device: "dynamometer", label } });
}
