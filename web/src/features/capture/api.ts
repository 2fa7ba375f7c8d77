import { useQuery, useQueryClient } from "@tanstack/react-query";
import { fetchClient, problemOf, type Schemas } from "../../shared/api/client";
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

export const photoWay = (token: string, { pose, mirrored, distance_m }: Take): Way => {
  const said = new URLSearchParams({ pose, mirrored: String(mirrored) });
  if (distance_m !== undefined) said.set("distance_m", String(distance_m));
  return { method: "POST", path: `/api/v1/my/photos?${said}`, headers: headers(token) };
};

/** A line that gives no answer for so long is none. */
const LOOK_MS = 30_000;

/** The studio's sentence on a small copy of a picture; nothing without a line, or when nobody waits for it any more. */
export async function look(
  token: string,
  pose: Pose,
  small: Blob,
  waits: AbortController,
): Promise<Said | undefined> {
  const given = setTimeout(() => waits.abort(), LOOK_MS);
  try {
    const answer = await fetch(`/api/v1/my/photos/look?${new URLSearchParams({ pose })}`, {
      method: "POST",
      headers: { ...headers(token), "Content-Type": "application/octet-stream" },
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
export function useKeepSetUp(token: string): (body: SetUp) => Promise<string | undefined> {
  const client = useQueryClient();
  return async (body) => {
    const put = fetchClient.PUT("/api/v1/my/photos/set-up", { headers: headers(token), body });
    const answer = await put.catch(() => undefined);
    if (answer?.error) return problemOf(answer.error)?.detail;
    client.setQueryData<Asked>(keyOf(token), (asked) => asked && { ...asked, set_up: body });
    return undefined;
  };
}
