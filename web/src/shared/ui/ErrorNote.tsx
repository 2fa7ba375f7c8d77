import { useTranslation } from "react-i18next";
import { problemOf } from "../api/client";
import { useQuantities } from "../format";

/** An error in the server's own sentence, with a way to try again. */
export function ErrorNote({ error, onRetry }: { error: unknown; onRetry?: () => void }) {
  const { t } = useTranslation();
  const { said } = useQuantities();
  return (
    // In place of a page it stands apart; within a dialog or a form it is a line of it.
    <div role="alert" style={{ padding: onRetry ? 32 : "0 0 8px", color: "var(--danger)" }}>
      <p style={{ marginTop: 0 }}>{said(problemOf(error)?.detail ?? t("error.unknown"))}</p>
      {onRetry && (
        <button type="button" className="text-button" onClick={onRetry}>
          {t("error.retry")}
        </button>
      )}
    </div>
  );
}
