import { Select } from "antd";
import { useTranslation } from "react-i18next";
import { thumbOf } from "../api";
import { inPose, type Photo, posesOf } from "../model";
import styles from "./PoseBar.module.css";

interface Props {
  photos: Photo[];
  poseNames: Map<string, string>;
  pose: string | undefined;
  onPick: (pose: string) => void;
  /** Names the pose of a picture in which nobody was found. */
  onName: (photo: Photo, pose: string) => void;
}

/** The round's pictures, small, by pose; those still being looked at come last. */
export function PoseBar({ photos, poseNames, pose, onPick, onName }: Props) {
  const { t } = useTranslation();
  const waiting = photos.filter((photo) => !photo.pose);
  return (
    <ul className={styles.bar}>
      {posesOf(photos).map((id) => {
        const photo = inPose(photos, id);
        if (!photo) return null;
        const doubt =
          photo.state === "failed" ||
          photo.measured?.quality.some((check) => !check.ok) ||
          photo.measured?.person === false;
        const unsaid = photo.mirrored === undefined || photo.mirrored === null;
        const note =
          photo.state === "waiting"
            ? t("photos.waiting")
            : doubt
              ? t("photos.doubtful")
              : unsaid
                ? t("photos.mirrorAsk")
                : "";
        return (
          <li key={id}>
            <button
              type="button"
              aria-pressed={id === pose}
              title={note || undefined}
              onClick={() => onPick(id)}
            >
              <img src={thumbOf(photo)} alt="" width="36" height="48" />
              <span className={styles.name}>{poseNames.get(id) ?? id}</span>
              {note && <span className={styles.note}>{note}</span>}
            </button>
          </li>
        );
      })}
      {waiting.map((photo) => (
        <li key={photo.id} className={styles.waiting}>
          <img src={thumbOf(photo)} alt="" width="36" height="48" />
          <span className="quiet">{photo.failure ?? photo.measured?.why_not ?? t("photos.waiting")}</span>
          {photo.state !== "waiting" && (
            <Select
              size="small"
              aria-label={t("photos.pose")}
              placeholder={t("photos.pose")}
              popupMatchSelectWidth={false}
              options={[...poseNames].map(([value, label]) => ({ value, label }))}
              onChange={(named) => onName(photo, named)}
            />
          )}
        </li>
      ))}
    </ul>
  );
}
