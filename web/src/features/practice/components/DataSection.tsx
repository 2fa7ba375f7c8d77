import { Button, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useMay } from "../../../shared/api/may";
import { Fetch, SendLines } from "../../../shared/send";
import { PickFiles, Section } from "../../../shared/ui";
import { useTables, useTakingIn } from "../api";
import styles from "./DataSection.module.css";

/** The practice's data out and in, as far as whoever is signed in may: a backup, every table, a client from an archive. */
export function DataSection() {
  const { t } = useTranslation();
  const may = useMay();
  const whole = may("take-all-out");
  const tables = useTables(whole);
  const { taken, sending, take } = useTakingIn();
  const [table, setTable] = useState("log_entry");
  return (
    <Section title={t("practice.data")} className={styles.data}>
      {whole && (
        <>
          <p>
            <Fetch className={styles.button} href="/api/v1/practice/backup">
              {t("practice.backup")}
            </Fetch>{" "}
            <span className="quiet">{t("practice.backupHint")}</span>
          </p>
          <p>
            <label htmlFor="table">{t("practice.table")}</label>{" "}
            <Select
              id="table"
              value={table}
              onChange={setTable}
              popupMatchSelectWidth={false}
              options={tables.data?.map((name) => ({ value: name, label: name }))}
            />{" "}
            <Fetch href={`/api/v1/practice/tables/${table}`}>{t("practice.asCsv")}</Fetch>
          </p>
        </>
      )}
      {may("take-in") && (
        <p>
          <PickFiles accept=".zip" aria-label={t("practice.takeIn")} onPick={([file]) => file && take(file)}>
            <Button>{t("practice.takeIn")}</Button>
          </PickFiles>{" "}
          <span className="quiet">{t("practice.takeInHint")}</span>
        </p>
      )}
      {taken && (
        <p>
          {t("practice.takenIn", { name: taken.name, rounds: taken.rounds, entries: taken.log_entries })}{" "}
          <Link to={`/clients/${taken.client_id}`}>{t("practice.toClient")}</Link>
        </p>
      )}
      <SendLines
        sent={sending.all.filter(({ state }) => state !== "done")}
        stop={sending.stop}
        retry={sending.retry}
      />
    </Section>
  );
}
