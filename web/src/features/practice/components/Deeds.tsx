import { Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Act } from "../../../shared/api/may";
import { moment } from "../../../shared/format";
import { ErrorNote } from "../../../shared/ui";
import { useDeeds } from "../api";
import styles from "./Practice.module.css";

/** Deeds on one page of the answer. */
const A_PAGE = 100;

/** Who did what kind of thing for whom, newest first; at most one line an hour for the same. */
export function Deeds() {
  const { t } = useTranslation();
  const [skip, setSkip] = useState(0);
  const deeds = useDeeds(skip);
  return (
    <section aria-label={t("practice.deeds")}>
      <h2>{t("practice.deeds")}</h2>
      <p className="quiet">{t("practice.deedsHint")}</p>
      {deeds.error && <ErrorNote error={deeds.error} onRetry={() => deeds.refetch()} />}
      {deeds.data && (
        <details className={styles.roles}>
          <summary>{t("practice.deedsShow")}</summary>
          <table>
            <tbody>
              {deeds.data.map(({ at, name, act, client_name }) => (
                <tr key={`${at} ${name} ${act} ${client_name}`}>
                  <td>{moment(at)}</td>
                  <td>{name || t("practice.byLink")}</td>
                  <td>{t(`practice.acts.${act as Act}`)}</td>
                  <td>{client_name}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button disabled={skip === 0} onClick={() => setSkip(skip - A_PAGE)}>
            {t("practice.newer")}
          </Button>{" "}
          <Button disabled={deeds.data.length < A_PAGE} onClick={() => setSkip(skip + A_PAGE)}>
            {t("practice.older")}
          </Button>
        </details>
      )}
    </section>
  );
}
