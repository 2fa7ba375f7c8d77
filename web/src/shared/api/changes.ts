import { useQueryClient } from "@tanstack/react-query";

/** Sheets that give their own answer to a save. */
const SHEETS = ["/tape", "/tests", "/usual-week"];

/** After a step was saved: steps, verdict, plan and lists say something else. What was saved, `own`, knows already. */
export function useRoundChanged(...own: string[]) {
  const client = useQueryClient();
  return () =>
    client.invalidateQueries({
      predicate: ({ queryKey }) => {
        const path = String(queryKey[1]);
        return (
          ![...SHEETS, ...own].some((sheet) => path.endsWith(sheet)) &&
          (path.includes("/rounds/") || path.includes("/clients"))
        );
      },
    });
}
