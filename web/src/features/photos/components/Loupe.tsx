import { viewOf } from "../api";
import type { Photo, Point } from "../model";
import styles from "./Table.module.css";

const SIZE_PX = 168;
const NEARER = 2.4;

/** What lies around a landmark, larger. */
export function Loupe({ photo, at }: { photo: Photo; at: Point }) {
  const half = SIZE_PX / 2;
  return (
    <div className={styles.loupe} style={{ width: SIZE_PX, height: SIZE_PX }} aria-hidden="true">
      <img
        src={viewOf(photo)}
        alt=""
        width={photo.measured?.width_px}
        height={photo.measured?.height_px}
        style={{
          transform: `translate(${half - at.x * NEARER}px, ${half - at.y * NEARER}px) scale(${NEARER})`,
        }}
      />
      <svg width={SIZE_PX} height={SIZE_PX} aria-hidden="true">
        <path
          d={`M${half} 0V${half - 8}M${half} ${half + 8}V${SIZE_PX}M0 ${half}H${half - 8}M${half + 8} ${half}H${SIZE_PX}`}
        />
      </svg>
    </div>
  );
}
