import { $api } from "../../shared/api/client";

export function usePlan(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/plan", { params: { path: { round_id: roundId } } });
}
