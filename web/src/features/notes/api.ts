// Free words: the coach's on a client and on a round, and what coach and client write to each other.
import { useQueryClient } from "@tanstack/react-query";
import { $api, problemOf, type Schemas } from "../../shared/api/client";

const client = (client_id: string) => ({ params: { path: { client_id } } });
const MESSAGES = "/api/v1/clients/{client_id}/messages";
const MINE = "/api/v1/my/messages";

/** What is written to each other, and how it is added to and marked as seen. */
export interface Talk {
  data?: Schemas["MessagesView"];
  error: unknown;
  write: (words: string, done: () => void) => void;
  read: (upTo: string) => void;
}

export function useTalk(clientId: string): Talk {
  const queries = useQueryClient();
  const shown = $api.useQuery("get", MESSAGES, client(clientId));
  const keep = (view: Schemas["MessagesView"]) =>
    queries.setQueryData($api.queryOptions("get", MESSAGES, client(clientId)).queryKey, view);
  const writing = $api.useMutation("post", MESSAGES, { onSuccess: keep });
  const reading = $api.useMutation("put", "/api/v1/clients/{client_id}/messages/read", {
    onSuccess: (view) => {
      keep(view);
      void queries.invalidateQueries({ queryKey: ["get", "/api/v1/today"] });
    },
  });
  return {
    data: shown.data,
    error: shown.error ?? writing.error,
    write: (words, done) => writing.mutate({ ...client(clientId), body: { words } }, { onSuccess: done }),
    read: (up_to) => reading.mutate({ ...client(clientId), body: { up_to } }),
  };
}

/** The same behind a private link. */
export function useMyTalk(token: string): Talk {
  const queries = useQueryClient();
  const init = { headers: { Authorization: `Bearer ${token}` } };
  const shown = $api.useQuery("get", MINE, init, { retry: false });
  const keep = (view: Schemas["MessagesView"]) =>
    queries.setQueryData($api.queryOptions("get", MINE, init).queryKey, view);
  const writing = $api.useMutation("post", MINE, { onSuccess: keep });
  const reading = $api.useMutation("put", "/api/v1/my/messages/read", { onSuccess: keep });
  return {
    data: shown.data,
    error: shown.error ?? writing.error,
    write: (words, done) => writing.mutate({ ...init, body: { words } }, { onSuccess: done }),
    read: (up_to) => reading.mutate({ ...init, body: { up_to } }),
  };
}

/** Free words as they stand, and how others are put in their place. */
export interface KeptNote {
  note?: string;
  error: unknown;
  /** `was` is what stood there when it was read; `late` when somebody wrote since. */
  save: (was: string, note: string, then: { kept: () => void; late: () => void }) => void;
  /** What stands there now. */
  refetch: () => Promise<string | undefined>;
}

const CLIENT_NOTE = "/api/v1/clients/{client_id}/note";
const ROUND_NOTE = "/api/v1/rounds/{round_id}/note";
const isLate = (error: unknown) => problemOf(error)?.status === 409;

export function useClientNote(clientId: string): KeptNote {
  const queries = useQueryClient();
  const init = client(clientId);
  const shown = $api.useQuery("get", CLIENT_NOTE, init);
  const saving = $api.useMutation("put", CLIENT_NOTE, {
    onSuccess: (view) => queries.setQueryData($api.queryOptions("get", CLIENT_NOTE, init).queryKey, view),
  });
  return {
    note: shown.data?.note,
    error: shown.error ?? saving.error,
    save: (was, note, { kept, late }) =>
      saving.mutate(
        { ...init, body: { was, note } },
        { onSuccess: kept, onError: (error) => isLate(error) && late() },
      ),
    refetch: async () => (await shown.refetch()).data?.note,
  };
}

export function useRoundNote(roundId: string): KeptNote {
  const queries = useQueryClient();
  const init = { params: { path: { round_id: roundId } } };
  const shown = $api.useQuery("get", ROUND_NOTE, init, { enabled: roundId !== "" });
  const saving = $api.useMutation("put", ROUND_NOTE, {
    onSuccess: (view) => queries.setQueryData($api.queryOptions("get", ROUND_NOTE, init).queryKey, view),
  });
  return {
    note: shown.data?.note,
    error: shown.error ?? saving.error,
    save: (was, note, { kept, late }) =>
      saving.mutate(
        { ...init, body: { was, note } },
        { onSuccess: kept, onError: (error) => isLate(error) && late() },
      ),
    refetch: async () => (await shown.refetch()).data?.note,
  };
}
