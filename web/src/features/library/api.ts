import { useQueryClient } from "@tanstack/react-query";
import { $api } from "../../shared/api/client";

export const useOwn = () => $api.useQuery("get", "/api/v1/practice");

/** Saves an exercise of the practice's own; the planner and every list know it from now on. */
export function useSaveExercise() {
  const queries = useQueryClient();
  return $api.useMutation("put", "/api/v1/library/exercises", {
    onSuccess: (saved) => {
      queries.setQueryData($api.queryOptions("get", "/api/v1/practice").queryKey, saved);
      return queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[1] !== "/api/v1/practice" });
    },
  });
}
