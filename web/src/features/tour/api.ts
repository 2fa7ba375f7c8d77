import { useQueryClient } from "@tanstack/react-query";
import { $api } from "../../shared/api/client";

/** Whether the practice has no client at all; nothing while that is not known. */
export function useNoClients(enabled: boolean): boolean | undefined {
  const init = { params: { query: { page: 1, per_page: 1 } } };
  const { data } = $api.useQuery("get", "/api/v1/clients", init, { enabled });
  return data && data.total === 0 && data.unreadable.length === 0;
}

/** Makes a client up to look around with, or finds the one who is there. */
export function useMakeUp() {
  const queries = useQueryClient();
  return $api.useMutation("post", "/api/v1/clients/made-up", {
    onSuccess: () => queries.invalidateQueries(),
  });
}
