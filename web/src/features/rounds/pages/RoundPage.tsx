import { lazy, Suspense, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { useMay } from "../../../shared/api/may";
import { day } from "../../../shared/format";
import { Fetch } from "../../../shared/send";
import { Async, Dialog, failed, Title } from "../../../shared/ui";
import { useKeys } from "../../../shared/ui/keys";
import { useRound } from "../api";
import { NewRoundDialog } from "../components/NewRoundDialog";
import { RoundDialog } from "../components/RoundDialog";
import { StepBar } from "../components/StepBar";
import { isStep, neighbours, STEP_ACTS, STEP_KEYS, STEPS } from "../model";
import styles from "./RoundPage.module.css";

const AgreeOnRound = lazy(() => import("../../clients/components/AgreeOnRound"));

/** One round: who, when, the eight steps, and the step that is open. */
export function RoundPage() {
  const { t } = useTranslation();
  const { roundId = "", clientId = "" } = useParams();
  const navigate = useNavigate();
  const step = useLocation().pathname.split("/")[5] ?? "verdict";
  const [opening, setOpening] = useState(false);
  const [changing, setChanging] = useState(false);
  const [agreeing, setAgreeing] = useState(false);
  const may = useMay();
  const round = useRound(roundId);
  const base = `/clients/${clientId}/rounds`;
  const { older, newer } = neighbours(round.data?.rounds ?? [], roundId);
  const go = (target?: { id: string }) => target && navigate(`${base}/${target.id}/${step}`);
  const toSteps = Object.fromEntries(
    STEPS.map((name) => [STEP_KEYS[name], () => navigate(`${base}/${roundId}/${name}`)]),
  );
  useKeys({ olderRound: () => go(older), newerRound: () => go(newer), ...toSteps });
  if (failed(round) || !round.data) return <Async of={[round]} />;
  const act = isStep(step) ? STEP_ACTS[step] : undefined;
  const lookOnly = act && !may(act);
  const count = round.data.rounds.length;
  const index = count - round.data.rounds.findIndex((other) => other.id === roundId);
  return (
    <main className={styles.page}>
      <div className={styles.head}>
        <Title
          of={`${isStep(step) ? t(`round.steps.${step}`) : t("round.taken", { date: day(round.data.date) })}, ${round.data.client_name}`}
        />
        <h1>{round.data.client_name}</h1>
        <nav className={styles.rounds} aria-label={t("clients.columns.round")}>
          <RoundLink target={older && `${base}/${older.id}/${step}`} label={t("round.older")} sign="‹" />
          <span>
            {t("round.taken", { date: day(round.data.date) })}{" "}
            <span className="quiet">{t("round.of", { index, count })}</span>
          </span>
          <RoundLink target={newer && `${base}/${newer.id}/${step}`} label={t("round.newer")} sign="›" />
        </nav>
        <div className={styles.tools}>
          {may("take-out") && (
            <>
              <Fetch href={`/api/v1/clients/${clientId}/archive`}>{t("round.archive")}</Fetch>
              <a href={`/api/v1/rounds/${roundId}/case`}>{t("round.caseFile")}</a>
            </>
          )}
          {may("put-away") && (
            <button type="button" className="text-button" onClick={() => setChanging(true)}>
              {t("round.changeDay")}
            </button>
          )}
          <button type="button" className="text-button" onClick={() => setAgreeing(true)}>
            {t("round.next")}
          </button>
          <button type="button" className="text-button" onClick={() => setOpening(true)}>
            {t("round.new")}
          </button>
        </div>
      </div>
      <StepBar steps={round.data.steps} base={`${base}/${roundId}`} />
      {lookOnly && <p className="quiet">{t("round.lookOnly")}</p>}
      <Outlet />
      <RoundDialog
        key={`${roundId} ${round.data.date}`}
        clientId={clientId}
        roundId={roundId}
        date={round.data.date}
        open={changing}
        onClose={() => setChanging(false)}
      />
      <Dialog open={agreeing} title={t("round.nextTitle")} onClose={() => setAgreeing(false)}>
        <Suspense>
          <AgreeOnRound alone ids={[clientId]} onDone={() => setAgreeing(false)} />
        </Suspense>
      </Dialog>
      <NewRoundDialog
        clientId={clientId}
        open={opening}
        holder={round.data.measured_by}
        onClose={() => setOpening(false)}
      />
    </main>
  );
}

function RoundLink({ target, label, sign }: { target: string | undefined; label: string; sign: string }) {
  if (!target) return <span className={styles.arrow} aria-hidden="true" />;
  return (
    <Link className={styles.arrow} to={target} aria-label={label} title={label}>
      {sign}
    </Link>
  );
}
