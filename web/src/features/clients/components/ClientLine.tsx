import { Checkbox } from "antd";
import { useEffect, useRef } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { PlumbLine } from "../../../shared/charts";
import { day, percent, shortDay } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import { standingTone } from "../../../shared/ui/standing";
import { lineTarget, nextStep } from "../model";
import styles from "./ClientLine.module.css";

type Summary = Schemas["ClientSummary"];

/** One client: who, what stands out, what leans, and the next thing to do. */
interface Props {
  client: Summary;
  /** Whether the keys are on it. */
  picked: boolean;
  /** Whether a day for the next round is about to be agreed on with them. */
  chosen: boolean;
  onChoose?: (chosen: boolean) => void;
}

export function ClientLine({ client, picked, chosen, onChoose }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const row = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (picked) row.current?.scrollIntoView({ block: "nearest" });
  }, [picked]);
  const next = nextStep(client);
  return (
    <tr ref={row} className={styles.line} data-picked={picked || undefined}>
      <th scope="row" data-choose={onChoose ? "" : undefined}>
        {onChoose && (
          <Checkbox
            className={styles.choose}
            checked={chosen}
            aria-label={t("clients.choose", { name: client.name })}
            onChange={({ target }) => onChoose(target.checked)}
          />
        )}
        <Link to={lineTarget(client)} className={styles.name}>
          {client.name}
        </Link>
        <span className="quiet">
          {t("clients.years", { age: client.age_years })} · {names.look(client.look)} ·{" "}
          {t("clients.days", { count: client.days_per_week })}
        </span>
        {client.tags.length > 0 && <span className={styles.tags}>{client.tags.join(" · ")}</span>}
      </th>
      <td>{client.verdict && <Standouts verdict={client.verdict} />}</td>
      <td>{client.verdict && <Leans verdict={client.verdict} />}</td>
      <td>
        {client.newest ? (
          <>
            <span className={styles.date}>{day(client.newest.date)}</span>
            <span className={`quiet ${styles.below}`}>{client.newest.measured_by}</span>
          </>
        ) : (
          <span className="quiet">{t("clients.noRound")}</span>
        )}
        {client.next_round_on ? (
          <span className={styles.agreed} data-due={client.due}>
            {t("clients.nextOn", { date: shortDay(client.next_round_on) })}
          </span>
        ) : (
          client.due && (
            <span className={styles.agreed} data-due="true">
              {t("clients.isDue")}
            </span>
          )
        )}
      </td>
      <td className={styles.next}>
        <Link to={next.to}>{t(`clients.${next.label}`)}</Link>
      </td>
    </tr>
  );
}

function Standouts({ verdict }: { verdict: Schemas["VerdictSummary"] }) {
  const { t } = useTranslation();
  const names = useNames();
  if (verdict.missing.length > 0) return <span className={styles.look}>{t("clients.missing")}</span>;
  return (
    <div className={styles.marks}>
      {verdict.areas.map((mark) => (
        <span key={mark.area} className={styles.mark}>
          <PlumbLine mean={mark.mean} sd={mark.sd} standing={mark.standing} alone width={92} height={20} />
          <span>
            {mark.name} <Word standing={mark.standing} />
          </span>
        </span>
      ))}
      {verdict.regions.map((mark) => (
        <span key={mark.region} className={styles.mark}>
          <PlumbLine mean={mark.mean} sd={mark.sd} standing={mark.standing} alone width={92} height={20} />
          <span>
            {names.region(mark.region)} <Word standing={mark.standing} />
          </span>
        </span>
      ))}
      {verdict.areas.length + verdict.regions.length === 0 && (
        <span className="quiet">{t("clients.level")}</span>
      )}
      {verdict.outside && <span className={styles.look}>{t("clients.outside")}</span>}
    </div>
  );
}

function Leans({ verdict }: { verdict: Schemas["VerdictSummary"] }) {
  const names = useNames();
  return (
    <div className={styles.marks}>
      {verdict.leans.map((lean) => (
        <span key={lean.site}>
          {names.site(lean.site)} <SideMark side={lean.larger} /> +{percent(lean.index_pct)} %
        </span>
      ))}
    </div>
  );
}

/** The word alone: its plumb line hangs beside it. */
function Word({ standing }: { standing: Schemas["Standing"] }) {
  const { t } = useTranslation();
  return <span style={{ color: standingTone(standing).colour }}>{t(`verdict.${standing}`)}</span>;
}
