import type { ReactNode } from "react";
import styles from "./Read.module.css";

interface Props {
  /** The drawing's numbers in words. */
  says: string;
  /** Nothing around it takes the focus, so it does, and is named. */
  alone?: boolean;
  children: ReactNode;
}

/**
 * A drawing whose numbers are read under the pointer, and while it or the button or link around it has the focus. What
 * stands around it names it for a screen reader, unless it stands alone.
 */
export function Read({ says, alone = false, children }: Props) {
  const named = alone ? { tabIndex: 0, role: "img", "aria-label": says } : {};
  return (
    <span className={styles.read} {...named}>
      {children}
      <span className={styles.says} aria-hidden="true" data-says={says} />
    </span>
  );
}
