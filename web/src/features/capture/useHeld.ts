// How the phone is held, by its motion sensor, where it has one and may be asked.
import { useEffect, useState } from "react";
import { type Held, heldBy } from "./model";

/** Some phones ask their owner first, and only after the page was touched. */
type Asking = typeof DeviceMotionEvent & { requestPermission?: () => Promise<"granted" | "denied"> };

export async function mayFeel(): Promise<void> {
  if (typeof DeviceMotionEvent === "undefined") return;
  await (DeviceMotionEvent as Asking).requestPermission?.().catch(() => undefined);
}

/** Share of what was felt before that stays: the hand trembles. */
const CALM = 0.8;

export function useHeld(): Held | undefined {
  const [held, setHeld] = useState<Held>();
  useEffect(() => {
    const feel = ({ accelerationIncludingGravity: pull }: DeviceMotionEvent) => {
      if (pull?.x == null || pull.y == null || pull.z == null) return;
      const now = heldBy({ x: pull.x, y: pull.y, z: pull.z });
      setHeld((before) =>
        before
          ? {
              roll: CALM * before.roll + (1 - CALM) * now.roll,
              pitch: CALM * before.pitch + (1 - CALM) * now.pitch,
            }
          : now,
      );
    };
    window.addEventListener("devicemotion", feel);
    return () => window.removeEventListener("devicemotion", feel);
  }, []);
  return held;
}
