import { type PointerEvent, useRef, useState } from "react";
import type { Schemas } from "../../../shared/api/client";
import type { Photo } from "../model";
import styles from "./Table.module.css";

type Stroke = Schemas["Stroke"];

interface Props {
  photo: Photo;
  adds: boolean;
  radius: number;
  onStroke: (stroke: Stroke) => void;
}

/** Least way between two points of a stroke, px of the picture. */
const STEP_PX = 3;

/** Paints over the outline; the stroke is sent when the pointer is lifted. */
export function Brush({ photo, adds, radius, onStroke }: Props) {
  const [points, setPoints] = useState<[number, number][]>([]);
  const area = useRef<SVGRectElement>(null);
  const at = (event: PointerEvent): [number, number] | undefined => {
    const inverse = area.current?.getScreenCTM()?.inverse();
    const point = inverse && new DOMPoint(event.clientX, event.clientY).matrixTransform(inverse);
    return point && [Math.round(point.x * 10) / 10, Math.round(point.y * 10) / 10];
  };
  const move = (event: PointerEvent) => {
    const next = points.length > 0 ? at(event) : undefined;
    const last = points[points.length - 1];
    if (next && last && Math.hypot(next[0] - last[0], next[1] - last[1]) >= STEP_PX)
      setPoints([...points, next]);
  };
  const done = () => {
    if (points.length > 0) onStroke({ adds, radius_px: radius, points });
    setPoints([]);
  };
  const colour = adds ? "var(--ahead)" : "var(--behind)";
  return (
    <>
      <rect
        ref={area}
        data-handle
        className={styles.brushArea}
        width={photo.measured?.width_px}
        height={photo.measured?.height_px}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const start = at(event);
          if (start) setPoints([start]);
        }}
        onPointerMove={move}
        onPointerUp={done}
        onPointerCancel={() => setPoints([])}
      />
      {points.length > 0 && (
        <path
          d={`M${points.map(([x, y]) => `${x} ${y}`).join("L")}h0.01`}
          fill="none"
          stroke={colour}
          strokeOpacity="0.55"
          strokeWidth={2 * radius}
          strokeLinecap="round"
          strokeLinejoin="round"
          pointerEvents="none"
        />
      )}
    </>
  );
}
