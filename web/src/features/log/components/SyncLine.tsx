import { useTranslation } from "react-i18next";
import { moment } from "../../../shared/format";
import type { Log } from "../useLog";
import styles from "./Phone.module.css";

/** How much of the log has reached the studio. */
export function SyncMark({ log }: { log: Log }) {
  const { t } = useTranslation();
  return (
    <output className={styles.sync} data-waiting={log.waiting > 0}>
      {log.waiting > 0
        ? t("log.waiting", { count: log.waiting })
        : log.seenAt
          ? t("log.noLine")
          : t("log.sent")}
    </output>
  );
}

/** What stands in the way, and what to do. */
export function SyncNotes({ log }: { log: Log }) {
  const { t } = useTranslation();
  const minutes = Math.round(Math.abs(log.clockAheadS) / 60);
  return (
    <>
      {log.said?.alarm === "refer" && (
        <div className={styles.alarm} role="alert">
          {log.said.says}
        </div>
      )}
      {log.unkept > 0 && <p className={styles.notice}>{t("log.noRoom")}</p>}
      {log.trouble && <p className={styles.notice}>{log.trouble}</p>}
      {!log.trouble && log.seenAt && (
        <p className={styles.notice}>{t("log.offline", { at: moment(log.seenAt) })}</p>
      )}
      {minutes > 0 && (
        <p className={styles.notice}>
          {t(log.clockAheadS > 0 ? "log.clockAhead" : "log.clockSlow", { count: minutes })}
        </p>
      )}
      {log.refused.map((one) => (
        <div key={one.order} className={styles.notice}>
          {t("log.refused", { why: one.says ?? "" })}{" "}
          <button type="button" className={styles.plain} onClick={() => void log.discard(one)}>
            {t("log.discard")}
          </button>
        </div>
      ))}
    </>
  );
}
