import { useTranslation } from "react-i18next";
import type { Upload } from "../uploads";
import styles from "./Uploads.module.css";

interface Props {
  uploads: Upload[];
  onCancel: (key: number) => void;
  onRetry: (key: number) => void;
  onClear: () => void;
}

/** What is on its way in, one line a picture. */
export function UploadTray({ uploads, onCancel, onRetry, onClear }: Props) {
  const { t } = useTranslation();
  if (uploads.length === 0) return null;
  const open = uploads.some(({ state }) => state === "queued" || state === "sending" || state === "taking");
  return (
    <section className={styles.tray} aria-label={t("photos.uploads.title")}>
      <header>
        <h3>{t("photos.uploads.title")}</h3>
        {!open && (
          <button type="button" onClick={onClear}>
            {t("photos.uploads.clear")}
          </button>
        )}
      </header>
      <ul>
        {uploads.map(({ key, name, preview, state, sent, why }) => (
          <li key={key} data-state={state}>
            <img
              src={preview}
              alt=""
              width="36"
              height="48"
              onError={({ currentTarget }) => currentTarget.remove()}
            />
            <div>
              <strong>{name}</strong>
              <span className={styles.says} role={state === "failed" ? "alert" : undefined}>
                {state === "sending"
                  ? t("photos.uploads.sending", { percent: Math.round(100 * sent) })
                  : (why ?? t(`photos.uploads.${state}`))}
              </span>
              {state === "sending" && <progress max={1} value={sent} aria-label={name} />}
            </div>
            {(state === "queued" || state === "sending" || state === "taking") && (
              <button type="button" onClick={() => onCancel(key)}>
                {t("photos.uploads.cancel")}
              </button>
            )}
            {(state === "failed" || state === "cancelled") && (
              <button type="button" onClick={() => onRetry(key)}>
                {t("photos.uploads.retry")}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
