import { Skeleton } from "antd";
import { useTranslation } from "react-i18next";
import { problemOf } from "../api/client";
import styles from "./Async.module.css";
import { ErrorNote } from "./ErrorNote";

interface Query {
  data?: unknown;
  error?: unknown;
  refetch: () => unknown;
}

/** A server that is not reached leaves what is shown; one that refuses takes it away. */
const stops = ({ data, error }: Query): boolean =>
  !!error && (data === undefined || problemOf(error) !== undefined);

/** Whether any of these cannot be shown, though it may have been before. */
export const failed = (...queries: Query[]): boolean => queries.some(stops);

/** What stands in the place of a page, or of a part, until all of it is there: that it comes, or why it does not and a way to try again. */
export function Async({ of }: { of: Query[] }) {
  const { t } = useTranslation();
  const wrong = of.filter(stops);
  if (wrong[0])
    return (
      <ErrorNote
        error={wrong[0].error}
        onRetry={() => {
          for (const query of wrong) query.refetch();
        }}
      />
    );
  return (
    <div className={styles.coming} role="status" aria-label={t("app.coming")}>
      <div aria-hidden="true">
        <Skeleton title paragraph={{ rows: 6 }} />
      </div>
    </div>
  );
}
