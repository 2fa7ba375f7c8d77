import { App, Segmented } from "antd";
import { useCallback, useMemo, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate, useSearchParams } from "react-router";
import { type Atlas, namesOf } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { ConflictNote, SaveState, useUndoKeys } from "../../../shared/save";
import { shortcut } from "../../../shared/ui/acts";
import { useMirror } from "../../../shared/ui/address";
import { useKeys } from "../../../shared/ui/keys";
import { ChoiceTray } from "../components/ChoiceTray";
import { NextLooks } from "../components/NextLooks";
import { Notes } from "../components/Notes";
import { PlumbChart } from "../components/PlumbChart";
import { RegionDetail } from "../components/RegionDetail";
import { ShareDialog } from "../components/ShareDialog";
import { SiteDetail } from "../components/SiteDetail";
import { TableTwin } from "../components/TableTwin";
import { VerdictFigure } from "../components/VerdictFigure";
import {
  areaOf,
  byNeed,
  type Choices,
  groups,
  hasEvidence,
  moved,
  type Order,
  overruled,
  type Pick,
  rows,
  standing,
  takenBack,
  toggledArea,
  toggledBringUp,
  toggledHoldBack,
  toggledShare,
} from "../model";
import { useChoices } from "../useChoices";
import styles from "./VerdictPage.module.css";

interface Props {
  roundId: string;
  atlas: Atlas;
  verdict: Schemas["VerdictView"];
  refetch: () => Promise<Schemas["VerdictView"] | undefined>;
}

/** What a link leads to. */
function pickIn(search: URLSearchParams, { regions, sites }: Atlas): Pick | undefined {
  const region = regions.find(({ id }) => id === search.get("region"));
  if (region) return { kind: "region", id: region.id };
  const site = sites.find(({ id }) => id === search.get("site"));
  return site && { kind: "site", id: site.id };
}

/** Which parts of the chart are folded away, and whether the rest of the regions is shown. */
function useFolds() {
  const [restShown, setRestShown] = useState(false);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const fold = useCallback(
    (site: string) =>
      setFolded((folded) => {
        const next = new Set(folded);
        if (!next.delete(site)) next.add(site);
        return next;
      }),
    [],
  );
  const turnRest = useCallback(() => setRestShown((shown) => !shown), []);
  const foldAll = (sites: string[]) => setFolded(folded.size > 0 ? new Set() : new Set(sites));
  return { restShown, turnRest, folded, fold, foldAll };
}

/** Everything along one plumb line, the picked row's evidence beside it, and the choice of what to bring up. */
export function VerdictDesk({ roundId, atlas, verdict, refetch }: Props) {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const navigate = useNavigate();
  const document = useChoices(roundId, verdict, refetch);
  const [search] = useSearchParams();
  const [picked, setPicked] = useState(() => pickIn(search, atlas));
  const { restShown, turnRest, folded, fold, foldAll } = useFolds();
  const [order, setOrder] = useState<Order>(search.get("order") === "need" ? "need" : "body");
  const [sharing, setSharing] = useState(false);
  const { assessment } = verdict;
  const choices = document.value;

  const laid = useMemo(() => groups(atlas, assessment), [atlas, assessment]);
  const needs = useMemo(() => (order === "need" ? byNeed(assessment) : undefined), [order, assessment]);
  const lines: Pick[] = needs
    ? needs.map(({ region }) => ({ kind: "region", id: region }))
    : rows(laid, restShown, folded);
  const keep = (next: Choices | undefined) => {
    if (next) document.change(next);
    else message.info(t("verdict.full"));
  };
  const region = picked?.kind === "region" ? picked.id : undefined;
  const site = picked?.kind === "site" ? picked.id : undefined;
  useMirror({ region, site, order: order === "need" ? order : undefined });
  const bringUp = (id: string) => keep(toggledBringUp(choices, id));
  const bringUpArea = (id: string) => keep(toggledArea(choices, id));
  const holdBack = (id: string) => keep(toggledHoldBack(choices, id));
  const pickRegion = useCallback((id: string) => setPicked({ kind: "region", id }), []);
  const sites = laid.flatMap(({ site }) => (site ? [site] : []));
  useUndoKeys(document);
  useKeys({
    next: () => setPicked((at) => moved(lines, at, 1)),
    previous: () => setPicked((at) => moved(lines, at, -1)),
    bringUp: () => {
      if (region) bringUp(region);
      else if (picked && areaOf(assessment, picked.id)) bringUpArea(picked.id);
    },
    holdBack: () => region && holdBack(region),
    order: () => setOrder(order === "body" ? "need" : "body"),
    fold: () => foldAll(sites),
    figure: () => setPicked(undefined),
  });

  if (!hasEvidence(assessment)) {
    return (
      <p>
        {t("verdict.nothing")} <Link to="../tape">{t("verdict.toTape")}</Link>
      </p>
    );
  }
  const names = namesOf(atlas);
  const pickedRegion = assessment.regions.find((entry) => entry.region === region);
  return (
    <>
      <ChoiceTray
        choices={choices}
        onRelease={bringUp}
        onPick={pickRegion}
        onReleaseArea={bringUpArea}
        onPickArea={(id) => setPicked({ kind: "site", id })}
        onPlan={() => navigate("../plan")}
        onShare={() => setSharing(true)}
      >
        <SaveState {...document} />
      </ChoiceTray>
      <ConflictNote conflict={document.conflict} />
      <Notes assessment={assessment} />
      <div className={styles.verdict}>
        <div>
          <div className={styles.order}>
            <Segmented
              size="small"
              aria-label={t("verdict.orderBy")}
              value={order}
              onChange={setOrder}
              options={(["body", "need"] as const).map((value) => ({
                value,
                label: t(`verdict.order.${value}`),
              }))}
            />
          </div>
          <PlumbChart
            atlas={atlas}
            assessment={assessment}
            groups={laid}
            needs={needs}
            choices={choices}
            picked={picked}
            restShown={restShown}
            folded={folded}
            onPick={setPicked}
            onRest={turnRest}
            onFold={fold}
          />
          <TableTwin assessment={assessment} />
        </div>
        <aside className={styles.detail} aria-label={t("verdict.detail")}>
          <span className="sr-only" role="status">
            {pickedRegion &&
              `${names.region(pickedRegion.region)}: ${t(`verdict.${standing(pickedRegion)}`)}`}
          </span>
          {picked && (
            <button
              type="button"
              className={styles.back}
              aria-keyshortcuts={shortcut("figure")}
              onClick={() => setPicked(undefined)}
            >
              ‹ {t("verdict.toFigure")}
            </button>
          )}
          {pickedRegion && (
            <RegionDetail
              entry={pickedRegion}
              assessment={assessment}
              threshold={atlas.act_threshold_pct}
              half={atlas.level_half_width_sd}
              choices={choices}
              onBringUp={() => bringUp(pickedRegion.region)}
              onHoldBack={() => holdBack(pickedRegion.region)}
              onOverrule={(verdict, reason) => keep(overruled(choices, pickedRegion.region, verdict, reason))}
              onTakeBack={() => keep(takenBack(choices, pickedRegion.region))}
            />
          )}
          {picked?.kind === "site" && (
            <SiteDetail
              site={picked.id}
              atlas={atlas}
              assessment={assessment}
              chosen={choices.areas.includes(picked.id)}
              onBringUp={() => bringUpArea(picked.id)}
            />
          )}
          {!picked && (
            <>
              <VerdictFigure assessment={assessment} onPick={pickRegion} />
              <NextLooks assessment={assessment} />
            </>
          )}
        </aside>
      </div>
      <ShareDialog
        choices={choices}
        open={sharing}
        onToggle={(what) => keep(toggledShare(choices, what))}
        onClose={() => setSharing(false)}
      />
    </>
  );
}
