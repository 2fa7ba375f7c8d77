import { $api } from "../../shared/api/client";

const headers = (token: string) => ({ Authorization: `Bearer ${token}` });

export function useMyPage(token: string) {
  return $api.useQuery("get", "/api/v1/my/page", { headers: headers(token) }, { retry: false });
}

/** A picture of the client's own, as an address that lives as long as the page. */
export async function myPhoto(token: string, id: string): Promise<string | undefined> {
  const answer = await fetch(`/api/v1/my/photos/${id}/view`, { headers: headers(token) });
  return answer.ok ? URL.createObjectURL(await answer.blob()) : undefined;
}
