import { Button, Radio } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Schemas } from "../../../shared/api/client";
import { useMay } from "../../../shared/api/may";
import { day } from "../../../shared/format";
import { Fetch } from "../../../shared/send";
import { DateInput, Dialog, ErrorNote } from "../../../shared/ui";
import { useIssue, useIssued } from "../api";
import { nextMonday, type Plan, thisMonday, type Week } from "../model";
import { Compare } from "./Compare";
import styles from "./IssueBar.module.css";

interface Props {
  roundId: string;
  base: string;
  view: Schemas["PlanView"];
  week: Week;
  plan: Plan;
  /** The week is kept at this revision; undefined while a change is on its way. */
  revision?: number;
}

const FILES = ["pdf", "ics", "csv"] as const;

/** What the client has, whether it is this week, and giving it to them. */
export function IssueBar({ roundId, base, view, week, plan, revision }: Props) {
  const { t } = useTranslation();
  const may = useMay();
  const [giving, setGiving] = useState(false);
  const [comparing, setComparing] = useState<string>();
  const issue = useIssue(roundId);
  const compared = useIssued(comparing);
  const [startsOn, setStartsOn] = useState(() => nextMonday(new Date()));
  const [last] = view.issued;
  const give = () =>
    issue.mutate(
      { params: { path: { round_id: roundId } }, body: { revision: revision ?? 0, starts_on: startsOn } },
      { onSuccess: () => setGiving(false) },
    );
  return (
    <div className={styles.bar}>
      <span>
        {!last
          ? t("plan.hasNone")
          : t(view.is_issued ? "plan.hasThis" : "plan.hasOther", {
              version: last.version,
              date: day(last.starts_on),
            })}
      </span>
      {last && (
        <>
          {!view.is_issued && (
            <button type="button" className="text-button" onClick={() => setComparing(last.id)}>
              {t("plan.compare")}
            </button>
          )}
          <Link to={`${base}/plan/print?plan=${last.id}`}>{t("plan.print")}</Link>
          {FILES.map((kind) => (
            <Fetch key={kind} href={`/api/v1/plans/${last.id}/files/${kind}`}>
              {t(`plan.files.${kind}`)}
            </Fetch>
          ))}
        </>
      )}
      {!last && !view.draft_because && <Link to={`${base}/plan/print`}>{t("plan.print")}</Link>}
      {may("give") && (
        <Button
          type={view.is_issued ? "default" : "primary"}
          disabled={!!view.draft_because}
          onClick={() => setGiving(true)}
        >
          {t(view.is_issued ? "plan.giveAgain" : "plan.give")}
        </Button>
      )}
      <Dialog
        open={giving}
        title={t("plan.giveTitle", { name: view.client_name })}
        onClose={() => setGiving(false)}
      >
        {issue.error && <ErrorNote error={issue.error} />}
        {(plan.broken ?? []).length > 0 && (
          <div>
            <p>{t("plan.giveBroken")}</p>
            <ul>
              {plan.broken?.map(({ says }) => (
                <li key={says}>{says}</li>
              ))}
            </ul>
          </div>
        )}
        {(plan.objections ?? []).length > 0 && (
          <div>
            <p>{t("plan.giveObjections")}</p>
            <ul>
              {plan.objections?.map(({ says }) => (
                <li key={says}>{says}</li>
              ))}
            </ul>
          </div>
        )}
        <fieldset className={styles.starts}>
          <legend>{t("plan.startsOn")}</legend>
          <Radio.Group
            name="starts"
            value={startsOn}
            onChange={({ target }) => setStartsOn(target.value)}
            options={[
              { label: t("plan.fromThisWeek"), value: thisMonday(new Date()) },
              { label: t("plan.fromNextWeek"), value: nextMonday(new Date()) },
            ]}
          />
          <label>
            {t("plan.fromDate")}{" "}
            <DateInput above aria-label={t("plan.startsOn")} value={startsOn} onChange={setStartsOn} />
          </label>
        </fieldset>
        <p>
          <Link to={`${base}/plan/print`} target="_blank">
            {t("plan.preview")}
          </Link>
        </p>
        <p className="quiet">
          {t("plan.giveHint", { version: (last?.version ?? 0) + 1, weeks: week.weeks })}
        </p>
        <Button type="primary" onClick={give} loading={issue.isPending} disabled={revision === undefined}>
          {t("plan.giveNow")}
        </Button>
      </Dialog>
      <Dialog
        wide
        open={comparing !== undefined}
        title={t("plan.compareTitle")}
        onClose={() => setComparing(undefined)}
      >
        {compared.data && <Compare then={compared.data} week={week} plan={plan} />}
      </Dialog>
    </div>
  );
}
