import { useTranslation } from "react-i18next";
import { useAtlas } from "../../../shared/api/atlas";
import { ErrorNote } from "../../../shared/ui";
import { NewBrief } from "../components/NewBrief";

/** A client to be added. */
export function NewClientPage() {
  const { t } = useTranslation();
  const atlas = useAtlas();
  return (
    <main style={{ maxWidth: 1240, margin: "0 auto", padding: "28px 32px 48px" }}>
      <h1 style={{ fontSize: 26, marginBottom: 20 }}>{t("clients.add")}</h1>
      {atlas.error && <ErrorNote error={atlas.error} onRetry={() => atlas.refetch()} />}
      {atlas.data && <NewBrief atlas={atlas.data} />}
    </main>
  );
}
