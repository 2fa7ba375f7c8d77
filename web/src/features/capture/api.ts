import { useQuery, useQueryClient } from "@tanstack/react-query";
import { $api, fetchClient, problemOf, type Schemas } from "../../shared/api/client";
import type { Way } from "../../shared/send";
import type { Asked, Pose, Said, SetUp } from "./model";
import { keepAsked, keptAsked, type Take } from "./waiting";

const headers = (token: string) => ({ Authorization: `Bearer ${token}` });
const keyOf = (token: string) => ["pictures-asked", token];

/** What is asked for; without a line, as this phone saw it last. */
export function useAsked(token: string) {
  return useQuery({
    queryKey: keyOf(token),
    retry: false,
    // Without a line it is looked up on the phone.
    networkMode: "always",
    queryFn: async (): Promise<Asked> => {
      try {
        const { data, error } = await fetchClient.GET("/api/v1/my/photos", { headers: headers(token) });
        if (!data) throw error;
        await keepAsked(token, data);
        return data;
      } catch (error) {
        const kept = problemOf(error) ? undefined : await keptAsked(token);
        if (!kept) throw error;
        return kept;
      }
    },
  });
}

/** A picture came in: what is asked for, and what the client may see of it, is read anew. */
export function usePictureCame(token: string): () => void {
  const client = useQueryClient();
  return () => {
    void client.invalidateQueries({ queryKey: keyOf(token) });
    void client.invalidateQueries({ queryKey: ["get", "/api/v1/my/page"] });
  };
}

/** What is known of a picture when it is taken, as it is sent along. */
export function takenAs({ pose, mirrored, distance_m }: Take): URLSearchParams {
  const said = new URLSearchParams({ pose, mirrored: String(mirrored) });
  if (distance_m !== undefined) said.set("distance_m", String(distance_m));
  return said;
}

export const photoWay = (token: string, take: Take): Way => ({
  method: "POST",
  path: `/api/v1/my/photos?${takenAs(take)}`,
  headers: headers(token),
});

/** A line that gives no answer for so long is none. */
const LOOK_MS = 30_000;

/** By which way a page asks about pictures: a client by their private link, or a coach who is signed in, of one round. */
export interface Door {
  lookAt: string;
  headers: Record<string, string>;
  /** Where what was asked for stands in the cache. */
  asked: readonly unknown[];
  keepSetUp: (body: SetUp) => Promise<{ error?: unknown }>;
}

export const doorOf = (token: string): Door => ({
  lookAt: "/api/v1/my/photos/look",
  headers: headers(token),
  asked: keyOf(token),
  keepSetUp: (body) => fetchClient.PUT("/api/v1/my/photos/set-up", { headers: headers(token), body }),
});

const roundInit = (roundId: string) => ({ params: { path: { round_id: roundId } } });
const ROUND_ASKED = "/api/v1/rounds/{round_id}/photos/asked";

export const doorOfRound = (roundId: string): Door => ({
  lookAt: `/api/v1/rounds/${roundId}/photos/look`,
  headers: {},
  asked: $api.queryOptions("get", ROUND_ASKED, roundInit(roundId)).queryKey,
  keepSetUp: (body) =>
    fetchClient.PUT("/api/v1/rounds/{round_id}/photos/set-up", { ...roundInit(roundId), body }),
});

/** What is to be taken in a round in the studio; asked for when the camera is opened. */
export const useToTake = (roundId: string) => $api.useQuery("get", ROUND_ASKED, roundInit(roundId));

/** The studio's sentence on a small copy of a picture; nothing without a line, or when nobody waits for it any more. */
export async function look(
  door: Door,
  pose: Pose,
  small: Blob,
  waits: AbortController,
): Promise<Said | undefined> {
  const given = setTimeout(() => waits.abort(), LOOK_MS);
  try {
    const answer = await fetch(`${door.lookAt}?${new URLSearchParams({ pose })}`, {
      method: "POST",
      headers: { ...door.headers, "Content-Type": "application/octet-stream" },
      body: small,
      signal: waits.signal,
    });
    const said: unknown = await answer.json();
    const refused = problemOf(said);
    if (refused) return { fault: "other", says: refused.detail };
    return answer.ok ? (said as Schemas["Taken"]) : undefined;
  } catch {
    return undefined;
  } finally {
    clearTimeout(given);
  }
}

/** Tells the studio where the camera stands; gives its sentence when it does not take it. Without a line it holds for as long as the page. */
export function useKeepSetUp(door: Door): (body: SetUp) => Promise<string | undefined> {
  const client = useQueryClient();
  return async (body) => {
    const answer = await door.keepSetUp(body).catch(() => undefined);
    if (answer?.error) return problemOf(answer.error)?.detail;
    client.setQueryData<Asked>(door.asked, (asked) => asked && { ...asked, set_up: body });
    return undefined;
  };
}
