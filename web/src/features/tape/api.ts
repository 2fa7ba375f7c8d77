import { useQueryClient } from "@tanstack/react-query";
import { useRoundChanged } from "../../shared/api/changes";
import { $api, fetchClient, type Schemas } from "../../shared/api/client";

const init = (roundId: string) => ({ params: { path: { round_id: roundId } } });

export function useSheet(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/tape", init(roundId));
}

/** Sends a sheet; the answer, with everything computed from it, takes the place of what was cached. */
export function useSendSheet(roundId: string) {
  const client = useQueryClient();
  const changed = useRoundChanged();
  const saving = $api.useMutation("put", "/api/v1/rounds/{round_id}/tape", {
    onSuccess: (sheet) => {
      client.setQueryData(
        $api.queryOptions("get", "/api/v1/rounds/{round_id}/tape", init(roundId)).queryKey,
        sheet,
      );
      changed();
    },
  });
  return (revision: number, body: Omit<Schemas["SaveTape"], "revision">) =>
    saving.mutateAsync({ ...init(roundId), body: { revision, ...body } });
}

export function useTapeOrder() {
  return $api.useQuery("get", "/api/v1/preferences/tape-order", {}, { staleTime: Number.POSITIVE_INFINITY });
}

export function useSaveTapeOrder() {
  const client = useQueryClient();
  return $api.useMutation("put", "/api/v1/preferences/tape-order", {
    onSuccess: (order) =>
      client.setQueryData($api.queryOptions("get", "/api/v1/preferences/tape-order", {}).queryKey, order),
  });
}

/** Reads a CSV file without saving anything. */
export function useReadCsv() {
  return $api.useMutation("post", "/api/v1/files/tape/csv");
}

export async function askDevice(body: Schemas["AskDevice"]): Promise<void> {
  await fetchClient.POST("/api/v1/devices/asked", { body });
}
