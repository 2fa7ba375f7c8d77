import { keepPreviousData } from "@tanstack/react-query";
import { $api } from "../../shared/api/client";

export const PER_PAGE = 25;

/** Clients by name, those whose name contains `find`; `away` for those put away. */
export function useClients(find: string, page: number, away: boolean) {
  const query = { find: find || undefined, page, per_page: PER_PAGE, away: away || undefined };
  return $api.useQuery(
    "get",
    "/api/v1/clients",
    { params: { query } },
    { placeholderData: keepPreviousData },
  );
}
