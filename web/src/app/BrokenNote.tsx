import { useTranslation } from "react-i18next";

/** A part of the application that is not there any more: it was put anew on the server since this tab was opened. */
const isOld = (error: unknown): boolean =>
  error instanceof TypeError && /dynamically imported module|module script failed/i.test(error.message);

/** In the place of a page that broke: what is safe, and the way on. */
export function BrokenNote({ error, way }: { error: unknown; way?: string }) {
  const { t } = useTranslation();
  const old = isOld(error);
  return (
    <main role="alert" style={{ maxWidth: 640, margin: "0 auto", padding: "64px 24px" }}>
      <h1>{t(old ? "broken.old" : "broken.title")}</h1>
      <p>{t("broken.kept")}</p>
      <p>
        <button type="button" className="text-button" onClick={() => window.location.reload()}>
          {t(old ? "version.take" : "broken.again")}
        </button>{" "}
        {way && <a href={way}>{t("broken.today")}</a>}
      </p>
      {!old && error instanceof Error && <p className="quiet">{t("broken.says", { says: error.message })}</p>}
    </main>
  );
}
