import { useTranslation } from "react-i18next";
import { type Held, isLevel, LEVEL_DEG, type PoseAsked, pathOf } from "../model";
import styles from "./Capture.module.css";
import { Figure, figureOf } from "./Figure";

interface Props {
  pose: PoseAsked;
  held: Held | undefined;
  onVideo: (video: HTMLVideoElement | null) => void;
  /** The picture just taken lies over it. */
  covered: boolean;
}

/** The camera's picture; over it how the client stood last time, or how to stand, and the plumb line that hangs true. */
export function Viewfinder({ pose: { pose, ghost }, held, onVideo, covered }: Props) {
  const line = ghost ? pathOf(ghost.lines) : figureOf(pose);
  return (
    <>
      <video ref={onVideo} className={styles.seen} autoPlay playsInline muted />
      {!covered && line && (
        <svg
          className={styles.over}
          viewBox={ghost ? `0 0 ${ghost.width_px} ${ghost.height_px}` : "0 0 100 100"}
          aria-hidden="true"
        >
          <path className={styles.under} d={line} />
          <path className={styles.ghost} d={line} />
        </svg>
      )}
      {!covered && ghost && (
        <span className={styles.inset}>
          <Figure pose={pose} />
        </span>
      )}
      {!covered && <Plumb held={held} />}
    </>
  );
}

/** A line that hangs as the phone feels the earth's pull: on the frame's middle when the phone stands straight. */
function Plumb({ held }: { held: Held | undefined }) {
  const { t } = useTranslation();
  const roll = held?.roll ?? 0;
  const words = held && [
    Math.abs(held.roll) > LEVEL_DEG.roll &&
      t("capture.roll", {
        degrees: Math.round(Math.abs(held.roll)),
        side: t(`capture.sides.${held.roll > 0 ? "right" : "left"}`),
      }),
    Math.abs(held.pitch) > LEVEL_DEG.pitch &&
      t(`capture.pitch.${held.pitch > 0 ? "back" : "forward"}`, {
        degrees: Math.round(Math.abs(held.pitch)),
      }),
  ];
  return (
    <>
      <svg className={styles.over} viewBox="-50 0 100 178" aria-hidden="true">
        <line className={styles.middle} x1="0" y1="0" x2="0" y2="178" />
        <g transform={`rotate(${-roll})`}>
          <line className={styles.plumb} x1="0" y1="0" x2="0" y2="164" />
          <path className={styles.bob} d="M-3 163h6l-1 6-2 4-2-4z" />
        </g>
      </svg>
      {held && (
        <p className={styles.held} data-level={isLevel(held)}>
          {words?.filter(Boolean).join(" · ") || t("capture.level")}
        </p>
      )}
    </>
  );
}
