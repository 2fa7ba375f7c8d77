import { type Frame, levels, type Photo, plumb } from "../model";
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

/** The framed region: a corner at each end of every box, and the side's letter, readable in a flipped window too. */
export function RegionFrames({ frames, flipped = false }: { frames: Frame[]; flipped?: boolean }) {
  return (
    <>
      {frames.map(({ x, y, width, height, side }) => {
        const arm = Math.min(width, height) * 0.24;
        const corners = [
          `M${x} ${y + arm}V${y}H${x + arm}`,
          `M${x + width - arm} ${y}H${x + width}V${y + arm}`,
          `M${x} ${y + height - arm}V${y + height}H${x + arm}`,
          `M${x + width - arm} ${y + height}H${x + width}V${y + height - arm}`,
        ].join("");
        return (
          <g key={side ?? "middle"} style={{ color: side ? `var(--${side})` : "var(--accent)" }}>
            <path className={styles.frameGround} d={corners} />
            <path className={styles.frame} d={corners} />
            {side && (
              <text
                className={styles.frameSide}
                fontSize={26}
                transform={`translate(${x + width / 2} ${y - arm * 0.25}) scale(${flipped ? -1 : 1} 1)`}
              >
                {side === "left" ? "L" : "R"}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}
