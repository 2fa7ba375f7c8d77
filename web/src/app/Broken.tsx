import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { Link, useRouteError } from "react-router";

/** A part of the application that is not there any more: it was put anew on the server since this tab was opened. */
const isOld = (error: unknown): boolean =>
  error instanceof TypeError && /dynamically imported module|module script failed/i.test(error.message);

/** In the place of a page that broke: what is safe, and the way on. */
export function Broken() {
  const { t } = useTranslation();
  const error = useRouteError();
  const old = isOld(error);
  return (
    <main role="alert" style={{ maxWidth: 640, margin: "0 auto", padding: "64px 24px" }}>
      <h1>{t(old ? "broken.old" : "broken.title")}</h1>
      <p>{t("broken.kept")}</p>
      <p>
        <Button type="primary" onClick={() => window.location.reload()}>
          {t(old ? "version.take" : "broken.again")}
        </Button>{" "}
        <Link to="/today">{t("broken.today")}</Link>
      </p>
      {!old && error instanceof Error && <p className="quiet">{t("broken.says", { says: error.message })}</p>}
    </main>
  );
}
