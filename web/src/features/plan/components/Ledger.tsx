import { memo, useState } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { LedgerBar, LoadBar } from "../../../shared/charts";
import { sets } from "../../../shared/format";
import { Section } from "../../../shared/ui";
import { type LedgerRow, ledgerEnd, type PartGroup, type Plan, partGroups, sentence } from "../model";
import styles from "./Ledger.module.css";

const WIDTH = 120;

/** Weekly sets by big part with its regions inside, against what the part must not go under and each region's band. */
export const Ledger = memo(function Ledger({ plan }: { plan: Pick<Plan, "ledger" | "parts"> }) {
  const { t } = useTranslation();
  const [turned, setTurned] = useState<Record<string, boolean>>({});
  const most = ledgerEnd(plan.ledger);
  const groups = partGroups(plan);
  const end = Math.max(most, ...groups.map((group) => group.row?.sets ?? 0));
  return (
    <Section title={t("plan.ledger")} className={styles.ledger}>
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
        {groups.map((group) => {
          const key = group.row?.part ?? "others";
          const open = turned[key] ?? group.chosen;
          return (
            <Group
              key={key}
              group={group}
              open={open}
              onTurn={() => setTurned({ ...turned, [key]: !open })}
              most={most}
              end={end}
            />
          );
        })}
      </table>
    </Section>
  );
});

interface GroupProps {
  group: PartGroup;
  open: boolean;
  onTurn: () => void;
  /** Sets at the right end of a region's bar, and of a part's. */
  most: number;
  end: number;
}

function Group({ group, open, onTurn, most, end }: GroupProps) {
  const { t } = useTranslation();
  const { row, regions } = group;
  return (
    <tbody>
      <tr className={styles.part}>
        <th scope="row">
          <button type="button" aria-expanded={open} onClick={onTurn}>
            <svg viewBox="0 0 8 8" width="8" height="8" aria-hidden="true" data-open={open || undefined}>
              <path d="M2 1l4 3-4 3z" fill="currentColor" />
            </svg>
            {row ? t(`plan.parts.${row.part}`) : t("plan.otherRegions")}
          </button>
        </th>
        <td>
          {row && <LoadBar value={row.sets} mark={row.floor} most={end} least width={WIDTH} height={16} />}
        </td>
        <td className={styles.total}>
          {row && sets(row.sets)}
          {row && row.floor > 0 && (
            <span className="sr-only"> {t("plan.partFloor", { floor: sets(row.floor) })}</span>
          )}
        </td>
      </tr>
      {row?.reason && (
        <tr>
          <td colSpan={3} className={styles.reason}>
            {sentence(row.reason)} {row.nearest}
          </td>
        </tr>
      )}
      {open && regions.map((region) => <RegionRow key={region.region} row={region} most={most} />)}
    </tbody>
  );
}

function RegionRow({ row, most }: { row: LedgerRow; most: number }) {
  const { t } = useTranslation();
  const names = useNames();
  return (
    <tr className={styles.region}>
      <th scope="row">
        {names.region(row.region)}
        {row.class !== "grow" && <span className={styles.class}>{t(`plan.classes.${row.class}`)}</span>}
      </th>
      <td>
        {row.empty_because ? (
          <span className={styles.empty}>{row.empty_because}</span>
        ) : (
          <LedgerBar {...row} width={WIDTH} height={16} most={most} />
        )}
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
  );
}
