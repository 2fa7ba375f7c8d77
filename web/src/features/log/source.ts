// Where a week comes from and entries go to: a coach who is signed in, or a client with a private link.
import { fetchClient, problemOf, type Schemas } from "../../shared/api/client";
import { account } from "../../shared/save";
import type { Week } from "./model";

export interface Source {
  /** Names what this device keeps of it. */
  key: string;
  /** What it was called before its account was part of it. */
  formerly?: string;
  /** Who writes, for entries that are not sent yet. */
  writer: string;
  week: () => Promise<Answer<Week>>;
  send: (body: Schemas["SendEntries"]) => Promise<Answer<Schemas["SentEntries"]>>;
}

/** What came back: data, or a sentence with its status; no status when there was no line. */
export type Answer<T> = { data: T } | { says?: string; status?: number };

async function answered<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Answer<T>> {
  try {
    const { data, error, response } = await request;
    if (data !== undefined) return { data };
    return { says: problemOf(error)?.detail, status: response.status };
  } catch {
    return {};
  }
}

/** What a coach logs here belongs to their account. */
const coachKey = (clientId: string, of: string): string => `client ${clientId} of ${of}`;

/** Whether a source was a coach's of this account, or of before sources had an account. */
export const ofCoach = (source: string): boolean =>
  source.startsWith("client ") && (!source.includes(" of ") || source.endsWith(` of ${account()}`));

export function coachSource(clientId: string, writer: string): Source {
  const init = { params: { path: { client_id: clientId } } };
  return {
    key: coachKey(clientId, account()),
    formerly: `client ${clientId}`,
    writer,
    week: () => answered(fetchClient.GET("/api/v1/clients/{client_id}/week", init)),
    send: (body) => answered(fetchClient.POST("/api/v1/clients/{client_id}/log", { ...init, body })),
  };
}

export function linkSource(token: string, writer: string): Source {
  const headers = { Authorization: `Bearer ${token}` };
  return {
    // Two links of one client are two sources; a link does not show what another one kept.
    key: `link ${token.slice(0, 12)}`,
    writer,
    week: () => answered(fetchClient.GET("/api/v1/my/week", { headers })),
    send: (body) => answered(fetchClient.POST("/api/v1/my/log", { headers, body })),
  };
}
