import { $api, type Schemas } from "./client";

export type Act = Schemas["Act"];

/** Whether whoever is signed in may do something. Until that is known it is offered: the server decides. */
export function useMay(): (act: Act) => boolean {
  const session = $api.useQuery("get", "/api/v1/session", {}, { staleTime: 60_000 });
  return (act) => session.data?.acts.includes(act) ?? true;
}
