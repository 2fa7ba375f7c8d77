import { useQueryClient } from "@tanstack/react-query";
import { $api, type Schemas } from "../../shared/api/client";
import { partOf } from "./model";

const client = (clientId: string) => ({ params: { path: { client_id: clientId } } });

const LOG = "/api/v1/clients/{client_id}/log";

export function useLogPage(clientId: string, all: boolean) {
  return $api.useQuery(
    "get",
    LOG,
    { params: { path: { client_id: clientId }, query: { all } } },
    { placeholderData: (previous: Schemas["LogPage"] | undefined) => previous },
  );
}

/** What is said instead of the rules, until the exercise was done. */
export function useOverrule() {
  const queries = useQueryClient();
  return $api.useMutation("put", "/api/v1/clients/{client_id}/targets/{exercise}", {
    onSuccess: () => queries.invalidateQueries({ queryKey: ["get", LOG] }),
  });
}

/** Decides between versions: an entry of its own that follows them all. */
export function useDecide(clientId: string) {
  const queries = useQueryClient();
  const sending = $api.useMutation("post", LOG, {
    onSuccess: () => queries.invalidateQueries({ queryKey: ["get", LOG] }),
  });
  return {
    error: sending.error,
    decide: (entry: Schemas["LogEntry"]) =>
      sending.mutate({ ...client(clientId), body: { sent_at: entry.at, entries: [entry] } }),
  };
}

/** Sends versions that put a session right; what is refused is told with the part it is of, none for the session as a whole. */
export function useCorrect(clientId: string) {
  const queries = useQueryClient();
  const sending = $api.useMutation("post", LOG, {
    onSuccess: () => queries.invalidateQueries({ queryKey: ["get", LOG] }),
  });
  const sent = sending.variables?.body.entries ?? [];
  const refused = (sending.data?.outcomes ?? []).flatMap(({ fate, says }, place) => {
    const entry = sent[place];
    return fate === "refused" && says && entry ? [{ part: partOf(entry), says }] : [];
  });
  return {
    error: sending.error,
    isPending: sending.isPending,
    refused,
    correct: (entries: Schemas["LogEntry"][], onDone: () => void) =>
      sending.mutate(
        { ...client(clientId), body: { sent_at: new Date().toISOString(), entries } },
        { onSuccess: ({ outcomes }) => outcomes.every(({ fate }) => fate !== "refused") && onDone() },
      ),
  };
}

const LINKS = "/api/v1/clients/{client_id}/links";

export function useLinks(clientId: string) {
  return $api.useQuery("get", LINKS, client(clientId));
}

export function useMakeLink(clientId: string) {
  const queries = useQueryClient();
  return $api.useMutation("post", LINKS, {
    onSuccess: () => queries.invalidateQueries($api.queryOptions("get", LINKS, client(clientId))),
  });
}

export function useRevokeLink(clientId: string) {
  const queries = useQueryClient();
  return $api.useMutation("delete", "/api/v1/clients/{client_id}/links/{link_id}", {
    onSuccess: () => queries.invalidateQueries($api.queryOptions("get", LINKS, client(clientId))),
  });
}
