import type { Schemas } from "../../shared/api/client";
import { type Document, useDocument } from "../../shared/save";
import { useSendBrief } from "./api";
import { type Brief, differing, tidied } from "./model";

type Client = Schemas["ClientView"];

/** A stored client's brief, saved on the way. */
export function useBriefDocument(
  client: Client,
  refetch: () => Promise<Client | undefined>,
): Document<Client, Brief> {
  const send = useSendBrief(client.id);
  return useDocument<Client, Brief>(client, {
    key: `brief-${client.id}`,
    revisionOf: ({ revision }) => revision,
    valueOf: ({ brief }) => brief,
    differing,
    refetch,
    send: (known, brief) => send(known.revision, tidied(brief)),
  });
}
