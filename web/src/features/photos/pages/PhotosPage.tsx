import { App } from "antd";
import { type DragEvent, useState } from "react";
import { useTranslation } from "react-i18next";
import { useParams, useSearchParams } from "react-router";
import { useAtlas, useNames } from "../../../shared/api/atlas";
import { problemOf } from "../../../shared/api/client";
import { SendTray } from "../../../shared/send";
import { Async, failed } from "../../../shared/ui";
import { saved, useLightTable, usePhotoSending, useSavePhoto } from "../api";
import { AddBar } from "../components/AddBar";
import { Comparable } from "../components/Comparable";
import { Empty } from "../components/Empty";
import { Girths } from "../components/Girths";
import { PoseBar } from "../components/PoseBar";
import { Studio } from "../components/Studio";
import { inPose, type Photo, type PhotoPose, posesOf, takesOf } from "../model";
import { Desk } from "./Desk";
import styles from "./PhotosPage.module.css";

/** Writes what is looked at into the address: region, pose, and which picture of it. */
function useLook() {
  const [search, setSearch] = useSearchParams();
  return (pose: string | undefined, next: { region?: string; pose?: string; take?: string }) => {
    const params = new URLSearchParams(search);
    // Of another pose the picture that counts is shown first.
    if (next.pose && next.pose !== pose) params.delete("take");
    for (const [key, value] of Object.entries(next)) {
      if (value) params.set(key, value);
      else params.delete(key);
    }
    // At once: a key pressed right after a region is picked judges that one and not the one before.
    setSearch(params, { replace: true, flushSync: true });
  };
}

/** The photos of a round: taking them in, and the light table they lie on. */
export function PhotosPage() {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const { roundId = "" } = useParams();
  const [search] = useSearchParams();
  const lookFrom = useLook();
  const atlas = useAtlas();
  const names = useNames();
  const table = useLightTable(roundId);
  const uploads = usePhotoSending(roundId);
  const savePhoto = useSavePhoto();
  const [over, setOver] = useState(false);
  const [asking, setAsking] = useState<PhotoPose>();
  const [taking, setTaking] = useState(false);

  if (failed(atlas, table) || !atlas.data || !table.data) return <Async of={[atlas, table]} />;

  const own = table.data.rounds.find((round) => round.round_id === roundId)?.photos ?? [];
  const poses = posesOf(own);
  const region = search.get("region") ?? undefined;
  const shows = table.data.questions.find((question) => question.region === region)?.poses ?? [];
  const asked = search.get("pose") ?? undefined;
  const pose = asked && poses.includes(asked) ? asked : (shows[0] ?? poses[0]);
  const look = (next: Parameters<typeof lookFrom>[1]) => lookFrom(pose, next);
  const say = (failure: unknown) => message.error(problemOf(failure)?.detail ?? t("error.unknown"));
  const name = (photo: Photo, as: string) =>
    savePhoto.mutate(
      { params: { path: { photo_id: photo.id } }, body: { ...saved(photo), pose: as as Photo["pose"] } },
      { onError: say, onSuccess: () => look({ pose: as }) },
    );
  const refusal = table.data.refusal ?? undefined;
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    if (!refusal) uploads.add(event.dataTransfer.files, undefined);
  };
  const takes = takesOf(own, pose);
  const now = takes.find(({ id }) => id === search.get("take")) ?? inPose(own, pose);
  const poseNames = new Map(atlas.data.poses.map(({ id, name }) => [id as string, name]));
  const comparable = (
    <Comparable
      roundId={roundId}
      table={table.data}
      poses={atlas.data.poses}
      asking={asking}
      onAsk={setAsking}
      shown={pose}
      onLook={look}
      onError={say}
    />
  );
  const bar = (
    <AddBar
      roundId={roundId}
      taken={poses}
      disabled={!!refusal}
      onAsk={() => setAsking((pose ?? "F") as PhotoPose)}
      onCamera={() => setTaking(true)}
      onFiles={(files) => uploads.add(files, undefined)}
      onError={say}
    />
  );
  return (
    <section
      className={styles.page}
      data-over={over && !refusal}
      aria-label={t("round.steps.photos")}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      {own.length === 0 && !refusal && comparable}
      {own.length === 0 ? (
        <Empty refusal={refusal} bar={bar} />
      ) : (
        <>
          <header className={styles.head}>
            <PoseBar
              photos={own}
              poseNames={poseNames}
              pose={pose}
              onPick={(next) => look({ pose: next })}
              onName={name}
            />
            {bar}
          </header>
          {comparable}
          {now && pose ? (
            <Desk
              table={table.data}
              roundId={roundId}
              photo={now}
              takes={takes}
              pose={pose}
              region={region}
              poses={atlas.data.poses}
              regionName={names.region}
              outlineSePct={atlas.data.outline_se_pct}
              onLook={look}
              onError={say}
            />
          ) : (
            <p className="quiet">{t("photos.waitingLong")}</p>
          )}
          <Girths girths={table.data.girths} />
        </>
      )}
      {taking && (
        <Studio
          roundId={roundId}
          onTaken={(file, take) => uploads.add([file], take)}
          onAnother={(pose) => uploads.clear((to) => to?.pose === pose)}
          onError={say}
          onClose={() => setTaking(false)}
        />
      )}
      <SendTray title={t("photos.comingIn")} sending={uploads} />
    </section>
  );
}
