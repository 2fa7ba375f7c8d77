import { useTranslation } from "react-i18next";
import { Link } from "react-router";

export function NotFound() {
  const { t } = useTranslation();
  return (
    <main style={{ padding: 32 }}>
      <p>{t("app.notFound")}</p>
      <Link to="/clients">{t("app.back")}</Link>
    </main>
  );
}
