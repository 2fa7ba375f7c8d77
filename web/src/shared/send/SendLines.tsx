import { useTranslation } from "react-i18next";
import styles from "./Send.module.css";
import { isOpen, type Sending, type Sent } from "./useSending";

interface Props extends Pick<Sending, "stop" | "retry"> {
  sent: Sent[];
  /** What holds when the line broke off, where it is not lost then. */
  broken?: string;
  /** Lets go of what was refused, where it would be kept otherwise. */
  drop?: () => void;
}

/** What is on its way, a line each: how far, why not, and a way to stop it or try again. */
export function SendLines({ sent, stop, retry, broken, drop }: Props) {
  const { t } = useTranslation();
  return (
    <ul className={styles.lines}>
      {sent.map((one) => (
        <li key={one.key} data-state={one.state}>
          {one.preview && (
            <img
              src={one.preview}
              alt=""
              width="36"
              height="48"
              onError={({ currentTarget }) => currentTarget.remove()}
            />
          )}
          <div>
            <strong>{one.name}</strong>
            <Says sent={one} broken={broken} />
            {one.state === "sending" && <progress max={1} value={one.share} aria-label={one.name} />}
            {one.state === "taking" && <progress aria-label={one.name} />}
          </div>
          {isOpen(one) && (
            <button type="button" onClick={() => stop(one.key)}>
              {t("send.stop")}
            </button>
          )}
          {(one.state === "failed" || one.state === "stopped") && (
            <button type="button" onClick={() => retry(one.key)}>
              {t("send.retry")}
            </button>
          )}
          {drop && one.why !== undefined && (
            <button type="button" onClick={drop}>
              {t("send.drop")}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

function Says({ sent: { state, share, why }, broken }: { sent: Sent; broken?: string }) {
  const { t } = useTranslation();
  if (state === "failed")
    return (
      <span className={styles.says} role="alert">
        {why ?? broken ?? t("send.broken")}
      </span>
    );
  return (
    <span className={styles.says}>
      {state === "sending" ? t("send.sending", { percent: Math.round(100 * share) }) : t(`send.${state}`)}
    </span>
  );
}

/** The same in the corner of a page, to go on working beside. */
export function SendTray({ title, sending }: { title: string; sending: Sending }) {
  const { t } = useTranslation();
  if (sending.all.length === 0) return null;
  return (
    <section className={styles.tray} aria-label={title}>
      <header>
        <h3>{title}</h3>
        {!sending.all.some(isOpen) && (
          <button type="button" onClick={() => sending.clear()}>
            {t("send.clear")}
          </button>
        )}
      </header>
      <SendLines sent={sending.all} stop={sending.stop} retry={sending.retry} />
    </section>
  );
}
