import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { $api } from "../../shared/api/client";
import { sessionEvents } from "../../shared/api/session";
import { adoptDrafts, belongTo } from "../../shared/save";

const key = $api.queryOptions("get", "/api/v1/session").queryKey;

/** Whether anyone is signed in here, and who. */
export function useSession() {
  return $api.useQuery("get", "/api/v1/session", {}, { staleTime: 60_000 });
}

/** Who is signed in is asked anew; what follows from that is the gate's. */
function useFreshStart() {
  const client = useQueryClient();
  return {
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: key });
    },
  };
}

/**
 * Whose pages are shown. They stay theirs while a session has ended, so that signing in again goes on where it was; another
 * account starts clean.
 */
export function useAccount() {
  const client = useQueryClient();
  const session = useSession();
  const [shown, setShown] = useState<string>();
  const signedIn = session.data?.standing === "signed-in" ? (session.data.account ?? "") : undefined;
  const ended = shown !== undefined && session.data?.standing === "signed-out";
  const waited = useRef(false);
  if (ended) waited.current = true;
  if (signedIn !== undefined && signedIn !== shown) {
    // Before anything of theirs is drawn: drafts are read as it is.
    belongTo(signedIn);
    adoptDrafts();
    if (shown !== undefined) client.removeQueries({ predicate: ({ queryKey }) => queryKey[1] !== key[1] });
    setShown(signedIn);
  }
  useEffect(() => {
    const asked = () => void client.invalidateQueries({ queryKey: key });
    sessionEvents.addEventListener("ended", asked);
    return () => sessionEvents.removeEventListener("ended", asked);
  }, [client]);
  useEffect(() => {
    if (signedIn === undefined || !waited.current) return;
    waited.current = false;
    void client.invalidateQueries();
    sessionEvents.dispatchEvent(new Event("back"));
  }, [signedIn, client]);
  return { session, account: shown, ended };
}

export function useSignIn() {
  return $api.useMutation("post", "/api/v1/session", useFreshStart());
}

export function useMakeOwner() {
  return $api.useMutation("post", "/api/v1/session/owner", useFreshStart());
}

/** Keeps the units in which whoever is signed in reads and types. */
export function useSaveMeasures() {
  const client = useQueryClient();
  return $api.useMutation("put", "/api/v1/account/measures", {
    onSuccess: (session) =>
      client.setQueryData($api.queryOptions("get", "/api/v1/session", {}).queryKey, session),
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return $api.useMutation("delete", "/api/v1/session", {
    onSuccess: () => {
      client.clear();
      window.location.assign("/");
    },
  });
}
