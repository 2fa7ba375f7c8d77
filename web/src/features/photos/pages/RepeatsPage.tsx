import { App, Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { ErrorNote } from "../../../shared/ui";
import { useKeys } from "../../../shared/ui/keys";
import { useRepeats, useSaveRepeat } from "../api";
import { Blind } from "../components/Blind";
import judge from "../components/Judge.module.css";
import { Scale } from "../components/Scale";
import { SIDE_KEYS, STANDING_KEYS } from "../model";
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
  const keys = due?.kind === "left-right" ? SIDE_KEYS : STANDING_KEYS;
  const value = (i: number) => (due?.kind === "left-right" ? 2 - i : i - 2);
  useKeys({
    ...Object.fromEntries(keys.map((key, i) => [key, () => answer(value(i))])),
    x: () => answer(null),
  });
  if (repeats.error) return <ErrorNote error={repeats.error} onRetry={() => repeats.refetch()} />;
  if (!repeats.data) return null;
  return (
    <>
      <p className="quiet">
        <Link to="..">{t("photos.back_to_table")}</Link> ·{" "}
        {t("photos.againLead", { days: repeats.data.rest_days })}
      </p>
      {due ? (
        <div className={styles.again}>
          <Blind photo={due.photo} region={due.region} mirrored={due.mirrored} />
          <section>
            <h2 className={judge.title}>{names.region(due.region)}</h2>
            <span className="quiet">
              {t("photos.seenIn", {
                pose: atlas.data?.poses.find(({ id }) => id === due.pose)?.name ?? due.pose,
              })}
            </span>
            <fieldset className={judge.ask}>
              <legend>{t(due.kind === "standing" ? "photos.judgeTitle" : "photos.sidesTitle")}</legend>
              <Scale kind={due.kind} onRate={answer} />
            </fieldset>
            <Button size="small" onClick={() => answer(null)} aria-keyshortcuts="x">
              {t("photos.cannotTell")} <kbd className={judge.key}>x</kbd>
            </Button>
            <p className="quiet">{t("photos.left", { count: repeats.data.due.length - at })}</p>
            <Agreement repeats={repeats.data} />
          </section>
        </div>
      ) : (
        <section>
          <p>
            {repeats.data.repeats > 0 ? t("photos.againDone") : ""}{" "}
            {t("photos.againNone", { days: repeats.data.rest_days })}
          </p>
          <Agreement repeats={repeats.data} />
        </section>
      )}
    </>
  );
}

function Agreement({ repeats }: { repeats: Schemas["RepeatsView"] }) {
  const { t } = useTranslation();
  const sd = repeats.pooled_sd_steps.toFixed(2);
  if (typeof repeats.within_sd_steps !== "number") return <p>{t("photos.noRepeats", { sd })}</p>;
  return (
    <p>
      {t("photos.agreement", { count: repeats.repeats, sd: repeats.within_sd_steps.toFixed(2) })}{" "}
      {typeof repeats.kappa === "number" && t("photos.kappa", { kappa: repeats.kappa.toFixed(2) })}{" "}
      {t("photos.worth", { sd })}
    </p>
  );
}
