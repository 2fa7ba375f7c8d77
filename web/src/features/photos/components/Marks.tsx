import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { landmarkName, type Photo, type Point } from "../model";
import styles from "./Table.module.css";

interface Props {
  photo: Photo;
  /** Where landmarks stand now, moved or found. */
  places: Record<string, Point>;
  onMove: (name: string, at: Point) => void;
  onDone: () => void;
  onActive: (name: string | undefined) => void;
}

const STEP: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Landmarks to be dragged or nudged. Dots of the client's left and right differ in colour and in shape. */
export function Marks({ photo, places, onMove, onDone, onActive }: Props) {
  const { t } = useTranslation();
  const dragged = useRef<string>(undefined);
  const [active, setActive] = useState<string>();

  const at = (event: PointerEvent<SVGElement>): Point | undefined => {
    const group = event.currentTarget.closest("g[data-marks]") as SVGGElement | null;
    const inverse = group?.getScreenCTM()?.inverse();
    return inverse ? new DOMPoint(event.clientX, event.clientY).matrixTransform(inverse) : undefined;
  };
  const activate = (name: string | undefined) => {
    setActive(name);
    onActive(name);
  };
  const onKey = (event: KeyboardEvent, name: string) => {
    const step = STEP[event.key];
    const place = places[name];
    if (!step || !place) return;
    event.preventDefault();
    event.stopPropagation();
    const far = event.shiftKey ? 10 : 1;
    onMove(name, { x: place.x + step[0] * far, y: place.y + step[1] * far });
    onDone();
  };

  return (
    <g data-marks>
      {Object.entries(places).map(([name, place]) => {
        const { what, side } = landmarkName(name);
        const word = t(`photos.landmarks.${what}`, { defaultValue: what });
        const label = side ? `${word}, ${t(`photos.sideOf.${side}`)}` : word;
        const moved = name in photo.moved.landmarks;
        return (
          // biome-ignore lint/a11y/useSemanticElements: there is no element for a point that is moved in two directions
          <g
            key={name}
            data-handle
            data-active={active === name}
            role="button"
            tabIndex={0}
            aria-label={t("photos.mark", { name: label, x: Math.round(place.x), y: Math.round(place.y) })}
            className={styles.mark}
            style={{ color: side ? `var(--${side})` : "var(--accent)" }}
            onFocus={() => activate(name)}
            onBlur={() => activate(undefined)}
            onKeyDown={(event) => onKey(event, name)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              dragged.current = name;
              activate(name);
            }}
            onPointerMove={(event) => {
              const place = dragged.current === name ? at(event) : undefined;
              if (place) onMove(name, place);
            }}
            onPointerUp={() => {
              if (dragged.current === name) onDone();
              dragged.current = undefined;
            }}
          >
            <title>{moved ? `${label}, ${t("photos.savedMoves")}` : label}</title>
            <path className={styles.reach} d={`M${place.x} ${place.y}h0`} />
            <path className={styles.dotGround} d={`M${place.x} ${place.y}h0`} />
            <path className={styles.dot} data-moved={moved} d={`M${place.x} ${place.y}h0`} />
          </g>
        );
      })}
    </g>
  );
}
