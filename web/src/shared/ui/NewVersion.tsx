import { useTranslation } from "react-i18next";

/** A new version is offered, never forced: what is typed is kept either way. */
export function NewVersion({ onTake }: { onTake: () => void }) {
  const { t } = useTranslation();
  return (
    <p role="status" style={{ margin: 0, padding: "8px 32px", background: "var(--sunken)" }}>
      {t("version.there")}{" "}
      <button type="button" className="text-button" onClick={onTake}>
        {t("version.take")}
      </button>
    </p>
  );
}
