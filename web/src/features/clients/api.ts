import { keepPreviousData, useQueryClient } from "@tanstack/react-query";
import { $api } from "../../shared/api/client";
import type { Narrowing } from "./model";

export const PER_PAGE = 25;
const CLIENTS = "/api/v1/clients";

/** Clients as the list is narrowed and ordered. */
export function useClients({ find, tag, behind, due, order, away, page }: Narrowing) {
  const query = {
    find: find.trim() || undefined,
    tag: tag || undefined,
    behind: behind || undefined,
    due: due || undefined,
    order: order === "name" ? undefined : order,
    away: away || undefined,
    page,
    per_page: PER_PAGE,
  };
  return $api.useQuery("get", CLIENTS, { params: { query } }, { placeholderData: keepPreviousData });
}

/** Agrees on a day for the next round of some clients. */
export function useAgreeOnRound() {
  const queries = useQueryClient();
  return $api.useMutation("post", "/api/v1/clients/next-round", {
    onSuccess: () => {
      // Their lines, their rounds, and what is due today.
      void queries.invalidateQueries({ queryKey: ["get", CLIENTS] });
      void queries.invalidateQueries({ queryKey: ["get", "/api/v1/clients/{client_id}"] });
      void queries.invalidateQueries({ queryKey: ["get", "/api/v1/today"] });
    },
  });
}
