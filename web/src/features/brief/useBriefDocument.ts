import { useTranslation } from "react-i18next";
import type { Schemas } from "../../shared/api/client";
import { useQuantities } from "../../shared/format";
import { type Document, useDocument } from "../../shared/save";
import { useSendBrief } from "./api";
import { briefFieldName } from "./briefFieldName";
import { type Brief, differing, tidied } from "./model";

/** Answers of one moment: those of two people must not be mixed. */
const TOGETHER = ["readiness", "clearance", "photo_consent", "home"];

type Client = Schemas["ClientView"];

/** A stored client's brief, saved on the way. */
export function useBriefDocument(
  client: Client,
  refetch: () => Promise<Client | undefined>,
): Document<Client, Brief> {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const send = useSendBrief(client.id);
  return useDocument<Client, Brief>(client, {
    key: `brief-${client.id}`,
    revisionOf: ({ revision }) => revision,
    valueOf: ({ brief }) => brief,
    differing,
    fields: {
      named: ([field = "", part = ""]) => briefFieldName(field, part, t, length.unit),
      shown: ([field], value) => (field === "height_cm" ? length.full(Number(value)) : value),
      whole: TOGETHER,
    },
    refetch,
    send: (known, brief) => send(known.revision, tidied(brief)),
  });
}
