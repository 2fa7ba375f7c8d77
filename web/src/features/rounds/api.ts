import { useRoundChanged } from "../../shared/api/changes";
import { $api } from "../../shared/api/client";

const roundInit = (id: string) => ({ params: { path: { round_id: id } } });

export function useRound(id: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}", roundInit(id));
}

export function useClient(id: string) {
  return $api.useQuery("get", "/api/v1/clients/{client_id}", { params: { path: { client_id: id } } });
}

export function useRedateRound() {
  const changed = useRoundChanged();
  return $api.useMutation("put", "/api/v1/rounds/{round_id}", { onSuccess: changed });
}

export function useDeleteRound() {
  const changed = useRoundChanged();
  return $api.useMutation("delete", "/api/v1/rounds/{round_id}", { onSuccess: changed });
}

export function useOpenRound() {
  const changed = useRoundChanged();
  return $api.useMutation("post", "/api/v1/clients/{client_id}/rounds", { onSuccess: changed });
}
