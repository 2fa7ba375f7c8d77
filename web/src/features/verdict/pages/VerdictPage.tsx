import { App } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate, useParams } from "react-router";
import { useAtlas } from "../../../shared/api/atlas";
import { problemOf } from "../../../shared/api/client";
import { ErrorNote } from "../../../shared/ui";
import { useKeys } from "../../../shared/ui/keys";
import { useSaveChoices, useVerdict } from "../api";
import { ChoiceTray } from "../components/ChoiceTray";
import { Notes } from "../components/Notes";
import { PlumbChart } from "../components/PlumbChart";
import { RegionDetail } from "../components/RegionDetail";
import { SiteDetail } from "../components/SiteDetail";
import { TableTwin } from "../components/TableTwin";
import {
  type Choices,
  groups,
  moved,
  noChoices,
  overruled,
  type Pick,
  rows,
  takenBack,
  toggledBringUp,
  toggledHoldBack,
} from "../model";
import styles from "./VerdictPage.module.css";

/** The verdict: everything along one plumb line, the picked row's evidence beside it, and the choice of what to bring up. */
export function VerdictPage() {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const navigate = useNavigate();
  const { roundId = "", clientId = "" } = useParams();
  const atlas = useAtlas();
  const verdict = useVerdict(roundId);
  const saving = useSaveChoices(roundId);
  const [picked, setPicked] = useState<Pick>();
  const [restShown, setRestShown] = useState(false);

  const laid = atlas.data && verdict.data ? groups(atlas.data, verdict.data.assessment) : [];
  const save = (choices: Choices | undefined) => {
    if (!verdict.data) return;
    if (!choices) {
      message.info(t("verdict.full"));
      return;
    }
    const params = { path: { round_id: roundId } };
    saving.mutate(
      { params, body: { revision: verdict.data.choices_revision, choices } },
      {
        onError: (error) => {
          message.error(problemOf(error)?.detail ?? t("error.unknown"));
          verdict.refetch();
        },
      },
    );
  };
  const choices = verdict.data?.choices ?? noChoices;
  const region = picked?.kind === "region" ? picked.id : undefined;
  const bringUp = (id: string) => save(toggledBringUp(choices, id));
  const holdBack = (id: string) => save(toggledHoldBack(choices, id));
  const move = (by: number) => setPicked((at) => moved(rows(laid, restShown), at, by));
  useKeys({
    j: () => move(1),
    k: () => move(-1),
    b: () => region && bringUp(region),
    h: () => region && holdBack(region),
  });

  const error = atlas.error ?? verdict.error;
  if (error) return <ErrorNote error={error} onRetry={() => verdict.refetch()} />;
  if (!atlas.data || !verdict.data) return null;
  const { assessment } = verdict.data;
  if (assessment.sites.length === 0) {
    return (
      <p>
        {t("verdict.nothing")}{" "}
        <Link to={`/clients/${clientId}/rounds/${roundId}/tape`}>{t("verdict.toTape")}</Link>
      </p>
    );
  }
  const pickedRegion = assessment.regions.find((entry) => entry.region === region);
  return (
    <>
      <ChoiceTray
        choices={choices}
        onRelease={bringUp}
        onPick={(id) => setPicked({ kind: "region", id })}
        onPlan={() => navigate(`/clients/${clientId}/rounds/${roundId}/plan`)}
      />
      <Notes assessment={assessment} />
      <div className={styles.verdict}>
        <div>
          <PlumbChart
            atlas={atlas.data}
            assessment={assessment}
            groups={laid}
            choices={choices}
            picked={picked}
            restShown={restShown}
            onPick={setPicked}
            onRest={() => setRestShown(!restShown)}
          />
          <TableTwin assessment={assessment} />
        </div>
        <aside className={styles.detail} aria-live="polite">
          {pickedRegion && (
            <RegionDetail
              entry={pickedRegion}
              assessment={assessment}
              threshold={atlas.data.act_threshold_pct}
              choices={choices}
              onBringUp={() => bringUp(pickedRegion.region)}
              onHoldBack={() => holdBack(pickedRegion.region)}
              onOverrule={(verdict, reason) => save(overruled(choices, pickedRegion.region, verdict, reason))}
              onTakeBack={() => save(takenBack(choices, pickedRegion.region))}
            />
          )}
          {picked?.kind === "site" && (
            <SiteDetail site={picked.id} atlas={atlas.data} assessment={assessment} />
          )}
          {!picked && (
            <>
              <p className="quiet">{t("verdict.pick")}</p>
              <h2>{t("verdict.next")}</h2>
              <ul className={styles.next}>
                {assessment.next.map(({ what, minutes, kind, region }) => (
                  <li key={what}>
                    <NextWay what={what} kind={kind} region={region ?? undefined} />{" "}
                    <span className="quiet">{t("verdict.minutes", { minutes })}</span>
                  </li>
                ))}
              </ul>
              <p className={`quiet ${styles.source}`}>
                {t("verdict.source", {
                  population: assessment.reference.population,
                  n: assessment.reference.n,
                  source: assessment.reference.source.split(";")[0],
                })}
              </p>
            </>
          )}
        </aside>
      </div>
    </>
  );
}

/** What to look at next, as a way to where it is done. */
function NextWay({ what, kind, region }: { what: string; kind: string; region?: string }) {
  if (kind === "rating") return <Link to={`../photos?region=${region}`}>{what}</Link>;
  if (kind === "tape") return <Link to="../tape">{what}</Link>;
  return what;
}
