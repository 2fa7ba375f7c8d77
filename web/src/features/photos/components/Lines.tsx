import { levels, type Photo, plumb } from "../model";
import styles from "./Table.module.css";

/** The plumb line and the level lines of a picture, past its edges. */
export function Lines({ photo }: { photo: Photo }) {
  const line = plumb(photo);
  if (!line) return null;
  const { foot, head, lean } = line;
  const reach = Math.hypot(head.x - foot.x, head.y - foot.y);
  return (
    <g transform={`rotate(${lean} ${foot.x} ${foot.y})`}>
      <path className={styles.plumb} d={`M${foot.x} ${foot.y + reach * 0.1}V${foot.y - reach * 1.1}`} />
      {levels(photo).map((y) => (
        <path key={y} className={styles.level} d={`M${foot.x - reach} ${y}H${foot.x + reach}`} />
      ))}
    </g>
  );
}
