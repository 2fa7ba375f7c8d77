import { type MouseEvent, type ReactNode, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { Wrong } from "../ui/Wrong";
import styles from "./Send.module.css";
import { transfer } from "./transfer";

interface Props {
  href: string;
  className?: string;
  children: ReactNode;
}

/** How far a file has come; made first, so that its size is not known at once. */
type Now = { state: "making" } | { state: "coming"; share: number } | { state: "failed"; why?: string };

/** The name the server gives its file. */
export const nameIn = (disposition: string | null): string | undefined =>
  disposition?.match(/filename="?([^";]+)"?/)?.[1];

/** A file of the practice to keep: being made and on its way it says so and can be stopped; what fails is said beside it. */
export function Fetch({ href, className, children }: Props) {
  const { t } = useTranslation();
  const [now, setNow] = useState<Now>();
  const stop = useRef<() => void>(undefined);
  const fetch = (event: MouseEvent) => {
    // Another tab, or the browser's own way, stays what it is.
    if (event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    if (now && now.state !== "failed") return;
    setNow({ state: "making" });
    stop.current = transfer({ method: "GET", path: href }, undefined, {
      onShare: (share) => setNow({ state: "coming", share }),
      onDone: (answer) => {
        keep(answer.response as Blob, nameIn(answer.getResponseHeader("Content-Disposition")) ?? "orthomer");
        setNow(undefined);
      },
      onFailed: (why) => setNow({ state: "failed", why }),
      onStopped: () => setNow(undefined),
    });
  };
  return (
    <span className={styles.fetch}>
      <a href={href} download className={className} onClick={fetch}>
        {children}
      </a>
      {now && now.state !== "failed" && (
        <>
          <progress
            max={1}
            value={now.state === "coming" ? now.share : undefined}
            aria-label={t("send.making")}
          />
          <span className="quiet">
            {now.state === "making"
              ? t("send.making")
              : t("send.sending", { percent: Math.round(100 * now.share) })}
          </span>
          <button type="button" className="text-button" onClick={() => stop.current?.()}>
            {t("send.stop")}
          </button>
        </>
      )}
      {now?.state === "failed" && <Wrong>{now.why ?? t("send.broken")}</Wrong>}
    </span>
  );
}

function keep(file: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  // The browser has taken hold of it once the click was dealt with.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
