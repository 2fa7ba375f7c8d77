import { type ReactNode, useEffect, useId, useRef } from "react";
import { useTranslation } from "react-i18next";
import styles from "./Dialog.module.css";

interface Props {
  open: boolean;
  title: string;
  onClose: () => void;
  /** For tables and long lists. */
  wide?: boolean;
  children: ReactNode;
}

/** Where typing begins. */
const FIELD = "[data-body] :is(input, textarea, select):not([type=hidden], [type=file], :disabled)";

/**
 * The browser's own modal dialog: it holds the focus, Escape closes it, and the page behind is inert.
 * The component library's dialog locks scrolling with a style element that the content policy refuses.
 */
export function Dialog({ open, title, onClose, wide = false, children }: Props) {
  const element = useRef<HTMLDialogElement>(null);
  const { t } = useTranslation();
  const titleId = useId();
  useEffect(() => {
    if (!open) {
      element.current?.close();
      return;
    }
    element.current?.showModal();
    // The browser begins at the button that closes it: whoever opened it came for what is inside.
    element.current?.querySelector<HTMLElement>(FIELD)?.focus();
  }, [open]);
  return (
    <dialog
      ref={element}
      className={wide ? `${styles.dialog} ${styles.wide}` : styles.dialog}
      aria-labelledby={titleId}
      onCancel={(event) => {
        // Closed by what is shown, at once: a key pressed before the browser says "close" finds the page as it looks.
        event.preventDefault();
        onClose();
      }}
      // It is said late, and means nothing when the dialog has been opened again meanwhile.
      onClose={() => element.current?.open || onClose()}
    >
      <header className={styles.head}>
        <h2 id={titleId}>{title}</h2>
        <button type="button" onClick={onClose} aria-label={t("close")} title={t("close")}>
          ×
        </button>
      </header>
      <div data-body="" className={styles.body}>
        {open && children}
      </div>
    </dialog>
  );
}
