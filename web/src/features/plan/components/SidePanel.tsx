import { type ReactNode, useEffect, useRef } from "react";
import { useTranslation } from "react-i18next";
import styles from "./SidePanel.module.css";

interface Props {
  /** What it is called. */
  label: string;
  title: string;
  onClose: () => void;
  children: ReactNode;
}

/** What stands in the ledger's place for a while; on a narrow screen a sheet at the lower edge, so that the card stays in sight. */
export function SidePanel({ label, title, onClose, children }: Props) {
  const { t } = useTranslation();
  const heading = useRef<HTMLHeadingElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each title
  useEffect(() => heading.current?.focus({ preventScroll: true }), [title]);
  return (
    <section
      className={styles.panel}
      aria-label={label}
      onKeyDown={(event) => {
        if (event.key === "Escape") onClose();
      }}
    >
      <header>
        <h2 ref={heading} tabIndex={-1}>
          {title}
        </h2>
        <button type="button" className="text-button" onClick={onClose}>
          {t("plan.toLedger")}
        </button>
      </header>
      {children}
    </section>
  );
}
