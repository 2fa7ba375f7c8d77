import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { ErrorNote } from "../../../shared/ui";
import { usePlan } from "../api";
import { Blocked } from "../components/Blocked";
import { Ledger } from "../components/Ledger";
import { SessionColumn } from "../components/SessionColumn";
import styles from "./PlanPage.module.css";

/** The week: days as columns, exercises in order with their reasons, and the ledger beside them. */
export function PlanPage() {
  const { t } = useTranslation();
  const { roundId = "", clientId = "" } = useParams();
  const plan = usePlan(roundId);
  const [opened, setOpened] = useState<string>();
  if (plan.error) return <ErrorNote error={plan.error} onRetry={() => plan.refetch()} />;
  if (!plan.data) return null;
  const { plan: week, minutes_per_session, bring_up } = plan.data;
  const base = `/clients/${clientId}/rounds/${roundId}`;
  return (
    <>
      <div className={styles.bar}>
        {bring_up.length === 0 ? (
          <span>
            {t("plan.nothingChosen")} <Link to={`${base}/verdict`}>{t("plan.choose")}</Link>
          </span>
        ) : (
          <span className="quiet">
            {week.status === "infeasible" ? t("plan.infeasible") : t("plan.first_planner")}
          </span>
        )}
        {week.sessions.length > 0 && (
          <Link to={`${base}/plan/print`} className={styles.print}>
            {t("plan.print")}
          </Link>
        )}
      </div>
      {plan.data.draft_because && (
        <p className={styles.draft} role="alert">
          <strong>{t("plan.draft")}</strong> {plan.data.draft_because}.{" "}
          <Link to={`${base}/brief`}>{t("plan.toBrief")}</Link>
        </p>
      )}
      <Blocked blocked={week.blocked} />
      <div className={styles.plan}>
        <div
          className={styles.week}
          style={{ "--days": Math.min(week.sessions.length, 4) } as React.CSSProperties}
        >
          {week.sessions.map((session, index) => (
            <SessionColumn
              key={session.day}
              session={session}
              number={index + 1}
              minutes={minutes_per_session}
              opened={opened}
              onOpen={(key) => setOpened(key === opened ? undefined : key)}
            />
          ))}
        </div>
        <Ledger ledger={week.ledger} />
      </div>
    </>
  );
}
