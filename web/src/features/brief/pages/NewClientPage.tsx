import { useTranslation } from "react-i18next";
import { BriefForm } from "../components/BriefForm";

/** A client to be added. */
export function NewClientPage() {
  const { t } = useTranslation();
  return (
    <main style={{ maxWidth: 1180, margin: "0 auto", padding: "28px 32px 48px" }}>
      <h1 style={{ fontSize: 26, marginBottom: 20 }}>{t("clients.add")}</h1>
      <BriefForm />
    </main>
  );
}
