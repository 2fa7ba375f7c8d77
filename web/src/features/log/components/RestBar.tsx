import { useTranslation } from "react-i18next";
import { clockText } from "../model";
import type { RestClock } from "../useRest";
import styles from "./Phone.module.css";

/** The rest that runs; a tap ends it. */
export function RestBar({ rest }: { rest: RestClock }) {
  const { t } = useTranslation();
  if (rest.left_s === undefined) return null;
  const over = rest.left_s <= 0;
  const share = over ? 1 : 1 - rest.left_s / Math.max(1, rest.total_s);
  return (
    <div className={styles.rest} data-over={over}>
      <i style={{ width: `${100 * share}%` }} />
      <button type="button" onClick={rest.stop} aria-label={t("log.endRest")}>
        {over ? t("log.rested", { over: clockText(-rest.left_s) }) : clockText(rest.left_s)}
      </button>
    </div>
  );
}
