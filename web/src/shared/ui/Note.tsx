import { Alert } from "antd";
import type { ReactNode } from "react";
import styles from "./Note.module.css";

interface Props {
  /** Whether something went wrong, or something is asked of whoever reads it. */
  wrong?: boolean;
  children: ReactNode;
  /** What can be done about it. */
  action?: ReactNode;
}

/** What stands above a page or a part until something is done about it. */
export function Note({ wrong = false, children, action }: Props) {
  return (
    <Alert
      className={styles.note}
      type={wrong ? "error" : "warning"}
      showIcon={false}
      title={children}
      action={action && <span className={styles.action}>{action}</span>}
    />
  );
}
