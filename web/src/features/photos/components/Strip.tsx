import { useTranslation } from "react-i18next";
import { shortDay } from "../../../shared/format";
import type { Frame } from "../../../shared/judging";
import { Section, SideMark } from "../../../shared/ui";
import { viewOf } from "../api";
import { acrossPicture, framesOf, inPose, type LightTable, type Photo, plumb } from "../model";
import styles from "./Strip.module.css";

/** Height of a cut-out, px. */
const HEIGHT_PX = 92;

interface Props {
  table: LightTable;
  roundId: string;
  region: string;
  name: string;
  pose: string;
}

/** One region cut out of every round, oldest first, at one scale: what changes is the body, not the camera. */
export function Strip({ table, roundId, region, name, pose }: Props) {
  const { t } = useTranslation();
  const rounds = table.rounds
    .map((round) => ({ ...round, photo: inPose(round.photos, pose) }))
    .filter((round) => framesOf(round.photo, region).length > 0);
  const last = rounds[rounds.length - 1]?.photo;
  // Tallest box of the newest picture fills the strip; the others follow by their own scale.
  const tallest = Math.max(...framesOf(last, region).map((frame) => frame.height), 1);
  const cmHigh = tallest * (last?.measured?.scale_cm_per_px ?? 1);
  // The newest round is the one that is asked about.
  const end = (list: HTMLOListElement | null) => {
    if (list) list.scrollLeft = list.scrollWidth;
  };
  return (
    <Section title={t("photos.strip", { region: name })} level={3} className={styles.strip}>
      <ol ref={end}>
        {rounds.map(({ round_id, date, photo }) => (
          <li key={round_id} aria-current={round_id === roundId}>
            <div className={styles.boxes}>
              {acrossPicture(framesOf(photo, region)).map((frame) => (
                <Cut key={frame.side ?? "middle"} photo={photo as Photo} frame={frame} cmHigh={cmHigh} />
              ))}
            </div>
            <span>{shortDay(date)}</span>
          </li>
        ))}
      </ol>
    </Section>
  );
}

function Cut({ photo, frame, cmHigh }: { photo: Photo; frame: Frame; cmHigh: number }) {
  const k = (HEIGHT_PX / cmHigh) * (photo.measured?.scale_cm_per_px ?? 1);
  const line = plumb(photo);
  const lean = line ? ` rotate(${-line.lean}deg)` : "";
  const width = Math.max(frame.width * k, 24);
  const [cx, cy] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  return (
    <div className={styles.cut} style={{ width, height: HEIGHT_PX }}>
      <img
        src={viewOf(photo)}
        alt=""
        width={photo.measured?.width_px}
        height={photo.measured?.height_px}
        style={{
          transform: `translate(${width / 2}px, ${HEIGHT_PX / 2}px) scale(${k})${lean} translate(${-cx}px, ${-cy}px)`,
        }}
      />
      {frame.side && (
        <span className={styles.side}>
          <SideMark side={frame.side} />
        </span>
      )}
    </div>
  );
}
