import { useQueryClient } from "@tanstack/react-query";
import { $api } from "../../shared/api/client";

const key = $api.queryOptions("get", "/api/v1/session").queryKey;

/** Whether anyone is signed in here, and who. */
export function useSession() {
  return $api.useQuery("get", "/api/v1/session", {}, { staleTime: 60_000 });
}

/** Signing in, out or up changes who sees what: everything cached is dropped. */
function useFreshStart() {
  const client = useQueryClient();
  return {
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: key });
    },
  };
}

export function useSignIn() {
  return $api.useMutation("post", "/api/v1/session", useFreshStart());
}

export function useMakeOwner() {
  return $api.useMutation("post", "/api/v1/session/owner", useFreshStart());
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
