import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useAtlas } from "../../../shared/api/atlas";
import { ErrorNote, Title } from "../../../shared/ui";
import { NewBrief } from "../components/NewBrief";

/** A client to be added. */
export function NewClientPage() {
  const { t } = useTranslation();
  const atlas = useAtlas();
  const [attempt, setAttempt] = useState(0);
  return (
    <main style={{ maxWidth: 1240, margin: "0 auto", padding: "28px 32px 48px" }}>
      <Title of={t("clients.add")} />
      <h1 style={{ fontSize: 26, marginBottom: 20 }}>{t("clients.add")}</h1>
      {atlas.error && <ErrorNote error={atlas.error} onRetry={() => atlas.refetch()} />}
      {atlas.data && (
        <NewBrief key={attempt} atlas={atlas.data} onStartOver={() => setAttempt(attempt + 1)} />
      )}
    </main>
  );
}
