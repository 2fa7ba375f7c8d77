import type { Schemas } from "../api/client";
import styles from "./Judging.module.css";

export interface Frame {
  x: number;
  y: number;
  width: number;
  height: number;
  side?: Schemas["Side"];
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
