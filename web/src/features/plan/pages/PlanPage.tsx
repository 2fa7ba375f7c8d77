import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams, useSearchParams } from "react-router";
import { type Atlas, useAtlas, useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { ConflictNote, SaveState, useUndoKeys } from "../../../shared/save";
import { Async, ErrorNote, failed, Note } from "../../../shared/ui";
import { useSteady } from "../../../shared/ui/steady";
import { useFirstProof, usePlan, useProof, useWeek } from "../api";
import { Blocked } from "../components/Blocked";
import { BlockStrip } from "../components/BlockStrip";
import { Board } from "../components/Board";
import { CardPanel } from "../components/CardPanel";
import { CoachLine } from "../components/CoachLine";
import { Gap } from "../components/Gap";
import { IssueBar } from "../components/IssueBar";
import { KeepWeek } from "../components/KeepWeek";
import { Ledger } from "../components/Ledger";
import { Loads } from "../components/Loads";
import { PlanTools } from "../components/PlanTools";
import { Replaced } from "../components/Replaced";
import { SwapPanel } from "../components/SwapPanel";
import { TakeWeek } from "../components/TakeWeek";
import { differing, type Spot, spotOf, spotOfKey, swapped } from "../model";
import { useWholeWeek } from "../useWholeWeek";
import styles from "./PlanPage.module.css";

/** The plan of a round: the week on a board, its ledger, its weeks, and what the client has. */
export function PlanPage() {
  const { roundId = "", clientId = "" } = useParams();
  const plan = usePlan(roundId);
  const atlas = useAtlas();
  if (failed(plan, atlas) || !plan.data || !atlas.data) return <Async of={[plan, atlas]} />;
  return (
    <PlanDesk
      key={roundId}
      roundId={roundId}
      clientId={clientId}
      base={`/clients/${clientId}/rounds/${roundId}`}
      view={plan.data}
      atlas={atlas.data}
      refetch={async () => (await plan.refetch()).data}
    />
  );
}

interface Props {
  roundId: string;
  clientId: string;
  base: string;
  view: Schemas["PlanView"];
  atlas: Atlas;
  refetch: () => Promise<Schemas["PlanView"] | undefined>;
}

function PlanDesk({ roundId, clientId, base, view, atlas, refetch }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const document = useWeek(roundId, view, refetch);
  const [asked] = useSearchParams();
  // Today leads to the card that hurts and what could stand in its place.
  const [swapping, setSwapping] = useState(() => spotOf(view.week, asked.get("swap") ?? ""));
  const [writing, setWriting] = useState<string[]>([]);
  const [number, setNumber] = useState(1);
  const proving = useProof(roundId, () => void refetch());
  useUndoKeys(document);
  const change = useSteady(document.change);
  const { value: week, stored } = document;
  const plan = stored.plan;
  const settled = document.state === "saved" && differing(week, stored.week) === 0;
  const unproven = plan.gap == null && (plan.broken ?? []).length === 0 && plan.status !== "infeasible";
  useFirstProof(proving, settled, unproven);
  const whole = useWholeWeek(roundId, document, () => {
    proving.stop();
    setSwapping(undefined);
  });
  // What is written and what could stand instead take the ledger's place in turns.
  const swap = useSteady((spot: Spot) => {
    setWriting([]);
    setSwapping(spot);
  });
  const write = useSteady((keys: string[]) => {
    setSwapping(undefined);
    setWriting(keys);
  });
  const written = writing.flatMap((key) => spotOfKey(week, key) ?? []);
  const broken = plan.broken ?? [];
  const weekly = broken.filter(({ cards, days }) => cards.length === 0 && days.length === 0);
  return (
    <>
      {view.draft_because && (
        <Note action={<Link to={`${base}/brief`}>{t("plan.toBrief")}</Link>}>
          <strong>{t("plan.draft")}</strong> {view.draft_because}.
        </Note>
      )}
      {view.clearance && (
        <p className={styles.note}>
          <strong>{t("plan.clearance")}</strong> {view.clearance}
        </p>
      )}
      <div className={styles.bar}>
        <PlanTools
          week={week}
          solving={whole.solving}
          onSolve={whole.solve}
          onWeeks={(weeks) => document.change({ ...week, weeks })}
        />
        <span className={styles.save}>
          <SaveState
            state={document.state}
            failure={document.failure}
            undo={document.undo}
            redo={document.redo}
          />
        </span>
      </div>
      <div className={styles.bar}>
        <Gap plan={plan} proving={proving} />
        {(stored.revision > 0 || stored.issued[0]?.round_id === roundId) && (
          <button type="button" className="text-button" onClick={whole.back}>
            {t("plan.back")}
          </button>
        )}
        <TakeWeek roundId={roundId} clientId={clientId} onTaken={whole.take} />
        <KeepWeek week={week} />
        <span className={styles.push} />
        <IssueBar
          roundId={roundId}
          base={base}
          view={view}
          week={week}
          plan={plan}
          revision={settled ? stored.revision : undefined}
        />
      </div>
      {whole.error && <ErrorNote error={whole.error} />}
      {document.conflict && <ConflictNote conflict={document.conflict} />}
      {stored.bring_up.length === 0 && (
        <p>
          {t("plan.nothingChosen")} <Link to={`${base}/verdict`}>{t("plan.choose")}</Link>
        </p>
      )}
      {stored.choices_changed && <p className={styles.note}>{t("plan.choicesChanged")}</p>}
      {whole.dropped.length > 0 && (
        <p className={styles.note}>
          {t("plan.dropped", { names: whole.dropped.map(names.exercise).join(", ") })}
        </p>
      )}
      {whole.replaced && <Replaced replaced={whole.replaced} onSeen={whole.seen} />}
      {broken.length > 0 && (
        <details className={styles.broken} open={weekly.length > 0}>
          <summary>{t("plan.brokenTitle", { count: broken.length })}</summary>
          <ul>
            {broken.map(({ says }) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
        </details>
      )}
      {(plan.gave_way ?? []).map((says) => (
        <p key={says} className={styles.note}>
          {says}
        </p>
      ))}
      <CoachLine plan={plan} />
      <Blocked blocked={plan.blocked} />
      <div className={styles.plan}>
        <Board
          week={week}
          plan={plan}
          atlas={atlas}
          roundId={roundId}
          chosen={stored.bring_up}
          number={Math.min(number, plan.weeks.length)}
          onChange={change}
          onSwap={swap}
          onWrite={write}
        />
        <aside aria-label={t("plan.beside")}>
          {swapping ? (
            <SwapPanel
              roundId={roundId}
              week={week}
              spot={swapping}
              onTake={(exercise) => document.change(swapped(week, swapping, exercise))}
              onClose={() => setSwapping(undefined)}
            />
          ) : written.length > 0 ? (
            <CardPanel
              key={writing.join(",")}
              clientId={clientId}
              week={week}
              plan={plan}
              atlas={atlas}
              spots={written}
              onChange={change}
              onClose={() => setWriting([])}
            />
          ) : (
            <>
              <Ledger plan={plan} />
              <Loads loads={plan.loads} />
            </>
          )}
          {plan.weeks.length > 0 && <BlockStrip plan={plan} number={number} onShow={setNumber} />}
        </aside>
      </div>
    </>
  );
}
