import { Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Navigate, useParams } from "react-router";
import { Async, failed, Title } from "../../../shared/ui";
import { BriefPage } from "../../brief";
import { useClient } from "../api";
import { NewRoundDialog } from "../components/NewRoundDialog";
import styles from "./RoundPage.module.css";

/** A client: the newest round, or the brief and a way to open the first round. */
export function ClientPage() {
  const { t } = useTranslation();
  const { clientId = "" } = useParams();
  const client = useClient(clientId);
  const [opening, setOpening] = useState(false);
  if (failed(client) || !client.data) return <Async of={[client]} />;
  const newest = client.data.rounds[0];
  if (newest && !opening) return <Navigate to={`/clients/${clientId}/rounds/${newest.id}/verdict`} replace />;
  return (
    <main className={styles.page}>
      <div className={styles.head} style={{ marginBottom: 24 }}>
        <Title of={client.data.brief.name} />
        <h1>{client.data.brief.name}</h1>
        <span className="quiet">{t("clients.noRound")}</span>
        <Button type="primary" onClick={() => setOpening(true)}>
          {t("clients.openRound")}
        </Button>
      </div>
      <BriefPage />
      <NewRoundDialog clientId={clientId} open={opening} holder="" onClose={() => setOpening(false)} />
    </main>
  );
}
