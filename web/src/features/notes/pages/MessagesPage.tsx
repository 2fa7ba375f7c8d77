import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { $api } from "../../../shared/api/client";
import { Title } from "../../../shared/ui";
import { useTalk } from "../api";
import { Conversation } from "../components/Conversation";

/** What a coach and a client write to each other. */
export function MessagesPage() {
  const { t } = useTranslation();
  const { clientId = "" } = useParams();
  const talk = useTalk(clientId);
  const client = $api.useQuery("get", "/api/v1/clients/{client_id}", {
    params: { path: { client_id: clientId } },
  });
  const name = client.data?.brief.name ?? "";
  return (
    <main style={{ padding: "20px 32px", maxWidth: 900 }}>
      <Title of={t("notes.with", { name })} />
      <h1>{t("notes.with", { name })}</h1>
      <p>
        <Link to={`/clients/${clientId}`}>{t("notes.toRound")}</Link>
      </p>
      <Conversation talk={talk} own="coach" />
    </main>
  );
}
