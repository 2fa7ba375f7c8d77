import { Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Act } from "../../../shared/api/may";
import { moment } from "../../../shared/format";
import { ErrorNote, Rows, Section } from "../../../shared/ui";
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
    <Section title={t("practice.deeds")}>
      <p className="quiet">{t("practice.deedsHint")}</p>
      {deeds.error && <ErrorNote error={deeds.error} onRetry={() => deeds.refetch()} />}
      {deeds.data && (
        <details className={styles.roles}>
          <summary>{t("practice.deedsShow")}</summary>
          <Rows
            label={t("practice.deeds")}
            rows={deeds.data}
            rowKey={({ at, name, act, client_name }) => `${at} ${name} ${act} ${client_name}`}
            stacked
            columns={[
              { key: "at", whole: true, of: ({ at }) => moment(at) },
              { key: "who", of: ({ name }) => name || t("practice.byLink") },
              { key: "act", of: ({ act }) => t(`practice.acts.${act as Act}`) },
              { key: "client", of: ({ client_name }) => client_name },
            ]}
          />
          <Button disabled={skip === 0} onClick={() => setSkip(skip - A_PAGE)}>
            {t("practice.newer")}
          </Button>{" "}
          <Button disabled={deeds.data.length < A_PAGE} onClick={() => setSkip(skip + A_PAGE)}>
            {t("practice.older")}
          </Button>
        </details>
      )}
    </Section>
  );
}
