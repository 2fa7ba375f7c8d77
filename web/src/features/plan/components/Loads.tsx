import { memo, useState } from "react";
import { useTranslation } from "react-i18next";
import { LoadBar } from "../../../shared/charts";
import { sets } from "../../../shared/format";
import { Section } from "../../../shared/ui";
import { isJoint, type Plan, shownLoads } from "../model";
import styles from "./Ledger.module.css";

/** Hard sets, the spine and the joints against what this client's week may hold. */
export const Loads = memo(function Loads({ loads }: { loads: Plan["loads"] }) {
  const { t } = useTranslation();
  const [all, setAll] = useState(false);
  const rows = shownLoads(loads ?? [], all);
  if (rows.length === 0) return null;
  return (
    <Section title={t("plan.loads")} className={styles.ledger}>
      <p className="quiet">{t("plan.loadsHint")}</p>
      <table>
        <thead className="sr-only">
          <tr>
            <th>{t("plan.loads")}</th>
            <th>{t("plan.ofLimit")}</th>
            <th>{t("plan.ofLimit")}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ of, load, limit, pain }) => (
            <tr key={of}>
              <th scope="row">
                {isJoint(of) ? t(`brief.areas.${of}`) : t(of === "sets" ? "plan.hardSets" : "plan.spine")}
                {pain > 0 && <span className={styles.class}>{t("plan.pain", { level: pain })}</span>}
              </th>
              <td>
                <LoadBar value={load} mark={limit} most={limit * 1.1 || 1} width={120} height={16} />
              </td>
              <td className={styles.total}>
                {sets(load)}
                <span className="quiet"> / {sets(limit)}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className={styles.toggle} onClick={() => setAll(!all)}>
        {all ? t("plan.loadsMain") : t("plan.loadsAll")}
      </button>
    </Section>
  );
});
