import { useQueryClient } from "@tanstack/react-query";

/** After a step was saved: steps, verdict, plan and lists say something else. The sheet that was saved knows already. */
export function useRoundChanged() {
  const client = useQueryClient();
  return () =>
    client.invalidateQueries({
      predicate: ({ queryKey }) => {
        const path = String(queryKey[1]);
        return !path.endsWith("/tape") && (path.includes("/rounds/") || path.includes("/clients"));
      },
    });
}
