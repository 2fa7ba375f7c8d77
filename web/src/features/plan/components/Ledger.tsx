import { memo, useState } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { LedgerBar } from "../../../shared/charts";
import { sets } from "../../../shared/format";
import { type LedgerRow, ledgerEnd, ledgerRows } from "../model";
import styles from "./Ledger.module.css";

/** Weekly sets per region against their band, chosen regions first. */
export const Ledger = memo(function Ledger({ ledger }: { ledger: LedgerRow[] }) {
  const { t } = useTranslation();
  const names = useNames();
  const [all, setAll] = useState(false);
  const rows = ledgerRows(ledger, all);
  const most = ledgerEnd(ledger);
  return (
    <section className={styles.ledger} aria-label={t("plan.ledger")}>
      <h2>{t("plan.ledger")}</h2>
      <p className="quiet">{t("plan.ledgerHint")}</p>
      <table>
        <thead className="sr-only">
          <tr>
            <th>{t("verdict.region")}</th>
            <th>{t("plan.ledger")}</th>
            <th>
              {t("plan.direct")} + {t("plan.indirect")}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <tr key={row.region} data-first={row.class !== rows[index - 1]?.class || undefined}>
              <th scope="row">
                {row.class !== rows[index - 1]?.class && (
                  <span className={styles.class}>{t(`plan.classes.${row.class}`)}</span>
                )}
                {names.region(row.region)}
              </th>
              <td>
                <LedgerBar {...row} width={120} height={16} most={most} />
              </td>
              <td className={styles.total}>
                {sets(row.total)}
                <span className="sr-only">
                  {" "}
                  ({sets(row.direct)} + {sets(row.indirect)}; {t("plan.low")} {sets(row.low)}, {t("plan.aim")}{" "}
                  {sets(row.aim)}, {t("plan.high")} {sets(row.high)})
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className={styles.toggle} onClick={() => setAll(!all)}>
        {all ? t("plan.showMain") : t("plan.showAll")}
      </button>
    </section>
  );
});
