import { useQueryClient } from "@tanstack/react-query";
import { $api } from "../../shared/api/client";

const TODAY = "/api/v1/today";

export function useToday() {
  return $api.useQuery("get", TODAY, {}, { refetchInterval: 60_000 });
}

export function useSeeTo() {
  const queries = useQueryClient();
  return $api.useMutation("post", "/api/v1/today/seen", {
    onSuccess: () => queries.invalidateQueries($api.queryOptions("get", TODAY)),
  });
}
