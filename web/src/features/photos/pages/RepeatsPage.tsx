import { App } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { problemOf } from "../../../shared/api/client";
import { Agreement, Ask } from "../../../shared/judging";
import { Async, failed, Section } from "../../../shared/ui";
import { useRepeats, useSaveRepeat } from "../api";
import { Blind } from "../components/Blind";
import judge from "../components/Judge.module.css";
import styles from "./PhotosPage.module.css";

/** Ratings asked again without date or answer, some mirrored: what a coach's own eye is worth. */
export function RepeatsPage() {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const { clientId = "" } = useParams();
  const names = useNames();
  const atlas = useAtlas();
  const repeats = useRepeats(clientId);
  const saving = useSaveRepeat();
  const [at, setAt] = useState(0);
  const due = repeats.data?.due[at];

  const answer = (value: number | null) => {
    if (!due || saving.isPending) return;
    const { round_id, region, pose, kind, mirrored } = due;
    saving.mutate(
      { body: { round_id, region, pose, kind, mirrored, value } },
      {
        onSuccess: () => {
          setAt(at + 1);
          if (at + 1 === repeats.data?.due.length) repeats.refetch().then(() => setAt(0));
        },
        onError: (error) => message.error(problemOf(error)?.detail ?? t("error.unknown")),
      },
    );
  };
  if (failed(repeats) || !repeats.data) return <Async of={[repeats]} />;
  return (
    <>
      <p className="quiet">
        <Link to="..">{t("photos.back_to_table")}</Link> ·{" "}
        {t("photos.againLead", { days: repeats.data.rest_days })}
      </p>
      {due ? (
        <div className={styles.again}>
          <Blind photo={due.photo} region={due.region} mirrored={due.mirrored} />
          <Section title={names.region(due.region)} headClass={judge.title}>
            <span className="quiet">
              {t("photos.seenIn", {
                pose: atlas.data?.poses.find(({ id }) => id === due.pose)?.name ?? due.pose,
              })}
            </span>
            <Ask kind={due.kind} onAnswer={answer} />
            <p className="quiet">{t("photos.left", { count: repeats.data.due.length - at })}</p>
            <Agreement agreement={repeats.data.agreement} />
          </Section>
        </div>
      ) : (
        <section>
          <p>
            {repeats.data.agreement.repeats > 0 ? t("photos.againDone") : ""}{" "}
            {t("photos.againNone", { days: repeats.data.rest_days })}
          </p>
          <Agreement agreement={repeats.data.agreement} />
        </section>
      )}
    </>
  );
}
