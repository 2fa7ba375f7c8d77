import { useMutation, useQueryClient } from "@tanstack/react-query";
import { $api, fetchClient, type Schemas } from "../../shared/api/client";

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

/** Looks for the set-up that loads a region most, or most while it is long: within the range of motion of a client, when it is for one. */
export function useFindSetUp(
  exercise: string,
  client: string | undefined,
  onFound: (numbers: Schemas["SetUpNumber"][]) => void,
) {
  const finding = useMutation({
    mutationFn: async ({ region, by }: { region: string; by: "most" | "longest" }) => {
      const { data, error } = await fetchClient.GET("/api/v1/exercises/{exercise}/best-set-up", {
        params: { path: { exercise }, query: { region, by, client } },
      });
      if (error) throw error;
      return data;
    },
    onSuccess: ({ set_up }) => onFound(set_up),
  });
  return {
    error: finding.error,
    isPending: finding.isPending,
    find: (region: string, by: "most" | "longest") => finding.mutate({ region, by }),
  };
}
