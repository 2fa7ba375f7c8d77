import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { Ask } from "../../../shared/judging";
import { Async, ErrorNote, failed } from "../../../shared/ui";
import { pictureOf, useAnswer, useSitting } from "../api";
import styles from "../components/Eye.module.css";
import { Figure } from "../components/Figure";
import { Progress } from "../components/Progress";
import { Results } from "../components/Results";
import { ToldPanel } from "../components/ToldPanel";
import type { Look } from "../model";

/** A sitting: one figure after another, each followed by what is true of it; at the end all of them together. */
export function SittingPage() {
  const { t } = useTranslation();
  const { sittingId = "" } = useParams();
  const atlas = useAtlas();
  const names = useNames();
  const sitting = useSitting(sittingId);
  const answering = useAnswer(sittingId);
  // The picture that was answered stays until the coach goes on.
  const [kept, setKept] = useState<Look>();
  const data = sitting.data;
  const look = kept ?? data?.next ?? undefined;
  const after = look && data && look.place + 1 < data.pictures ? pictureOf(data, look.place + 1) : undefined;
  useEffect(() => {
    // The next picture is drawn and fetched while this one is looked at.
    if (after) new Image().src = after;
  }, [after]);
  if (failed(sitting, atlas) || !data || !atlas.data) return <Async of={[sitting, atlas]} />;
  if (!look) {
    return (
      <main className={styles.page}>
        <h1>{t("eye.over")}</h1>
        <Results sitting={data} />
        <Link to="/eye">{t("eye.back")}</Link>
      </main>
    );
  }
  const told = kept && data.told[kept.place];
  const poseName = atlas.data.poses.find(({ id }) => id === look.pose)?.name ?? look.pose;
  const answer = (value: number | null) => {
    if (answering.isPending || kept) return;
    setKept(look);
    answering.answer(look.place, value);
  };
  const again = () => {
    answering.reset();
    setKept(undefined);
  };
  return (
    <main className={styles.sitting}>
      <Figure src={pictureOf(data, look.place)} look={look} poseName={poseName} />
      <section>
        <p className="quiet">{t("eye.at", { at: look.place + 1, count: data.pictures })}</p>
        <Progress count={data.pictures} done={data.told.length} at={look.place} />
        <h1>{names.site(look.site)}</h1>
        <span className="quiet">{t("photos.seenIn", { pose: poseName })}</span>
        {told ? (
          <ToldPanel
            told={told}
            before={data.told.find(({ place }) => place === told.seen_at)}
            last={!data.next}
            onNext={() => setKept(undefined)}
          />
        ) : (
          <Ask kind={look.kind} onAnswer={answer} />
        )}
        {answering.error && <ErrorNote error={answering.error} onRetry={again} />}
      </section>
    </main>
  );
}
