import type { ReactNode } from "react";
import styles from "./Rows.module.css";

export interface Column<Row> {
  key: string;
  /** Its head; a table whose columns have none has no row of heads. */
  title?: ReactNode;
  of: (row: Row, index: number) => ReactNode;
  /** Whether it tells what the row is about. */
  names?: boolean;
  /** Whether it holds numbers, one under the other. */
  numbers?: boolean;
  /** Whether it stands in one line. */
  whole?: boolean;
  width?: number | string;
}

interface Props<Row> {
  columns: Column<Row>[];
  rows: Row[];
  rowKey: (row: Row) => string;
  caption?: ReactNode;
  /** Its name where no caption says it. */
  label?: string;
  /** On a narrow screen each row stands as lines, one for each of its cells. */
  stacked?: boolean;
  /** What styles may ask of a row. */
  marks?: (row: Row) => Record<`data-${string}`, boolean | undefined>;
}

/**
 * A table of what is said, whole: nothing of it is typed in, and nothing waits on another page.
 * The component library's table measures scroll bars with a style element that the content policy refuses.
 */
export function Rows<Row>({ columns, rows, rowKey, caption, label, stacked, marks }: Props<Row>) {
  return (
    <table className={styles.rows} data-stacked={stacked || undefined} aria-label={label}>
      {caption && <caption>{caption}</caption>}
      {columns.some(({ title }) => title !== undefined) && (
        <thead>
          <tr>
            {columns.map(({ key, title, numbers }) =>
              title ? (
                <th key={key} scope="col" data-numbers={numbers || undefined}>
                  {title}
                </th>
              ) : (
                <td key={key} />
              ),
            )}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((row, index) => (
          <tr key={rowKey(row)} {...marks?.(row)}>
            {columns.map(({ key, title, of, names, numbers, whole, width }) =>
              names ? (
                <th key={key} scope="row" style={{ width }}>
                  {of(row, index)}
                </th>
              ) : (
                <td
                  key={key}
                  data-numbers={numbers || undefined}
                  data-whole={whole || undefined}
                  data-head={typeof title === "string" ? title : undefined}
                  style={{ width }}
                >
                  {of(row, index)}
                </td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
