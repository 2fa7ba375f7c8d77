import { Button } from "antd";
import { type KeyboardEvent, type PointerEvent, useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { Dialog, PickFiles, Wrong } from "../../../shared/ui";
import { useAngle } from "../api";
import type { Side } from "../model";
import styles from "./Tests.module.css";

interface Props {
  screen: Schemas["Screen"];
  side: Side;
  onClose: () => void;
  onTake: (degrees: number) => void;
}

type Point = [number, number];

/** The still in its own pixels. */
interface Still {
  url: string;
  width: number;
  height: number;
}

const STEP = 0.005;

/** Three points on a still give the range. The still is opened in this browser and goes nowhere. */
export function AngleDialog({ screen, side, onClose, onTake }: Props) {
  const { t } = useTranslation();
  const measuring = useAngle();
  const [still, setStill] = useState<Still>();
  const [refused, setRefused] = useState<string>();
  const [points, setPoints] = useState<Point[]>([]);
  useEffect(() => () => (still ? URL.revokeObjectURL(still.url) : undefined), [still]);
  const open = (file: File | undefined) => {
    if (!file) return;
    const url = URL.createObjectURL(file);
    const image = new Image();
    image.onload = () => setStill({ url, width: image.naturalWidth, height: image.naturalHeight });
    image.onerror = () => setRefused(file.name);
    image.src = url;
    setStill(undefined);
    setRefused(undefined);
    setPoints([]);
  };
  const put = (next: Point[]) => {
    setPoints(next);
    measuring.reset();
    const [one, joint, other] = next;
    if (one && joint && other) measuring.mutate({ body: { screen: screen.id, points: [one, joint, other] } });
  };
  const tap = (event: PointerEvent<SVGSVGElement>) => {
    if (!still || points.length >= 3) return;
    const box = event.currentTarget.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * still.width;
    const y = ((event.clientY - box.top) / box.height) * still.height;
    put([...points, [x, y]]);
  };
  const next = screen.points.tapped[points.length];
  return (
    <Dialog open wide title={`${screen.name}${t(`tape.sideOf.${side}`)}`} onClose={onClose}>
      <p className="quiet">{screen.how}</p>
      <PickFiles accept="image/*" aria-label={t("tests.stillFile")} onPick={([file]) => open(file)}>
        <Button>{t("tests.stillFile")}</Button>
      </PickFiles>
      {refused && <Wrong>{t("tests.noPicture", { file: refused })}</Wrong>}
      {still && (
        <>
          <p role="status">{next ? t("tests.tap", { what: next }) : t("tests.tapped")}</p>
          <svg
            className={styles.still}
            viewBox={`0 0 ${still.width} ${still.height}`}
            role="img"
            aria-label={t("tests.stillPicture")}
            onPointerDown={tap}
          >
            <image href={still.url} width={still.width} height={still.height} />
            <polyline
              points={points.map((point) => point.join(",")).join(" ")}
              fill="none"
              stroke="var(--accent)"
              strokeWidth={still.width / 160}
            />
            {points.map((point, index) => (
              <PointMark
                key={screen.points.tapped[index]}
                point={point}
                radius={still.width / 60}
                label={screen.points.tapped[index] ?? ""}
                onMove={(by) =>
                  put(
                    points.map((one, place) =>
                      place === index ? [one[0] + by[0] * still.width, one[1] + by[1] * still.width] : one,
                    ),
                  )
                }
              />
            ))}
          </svg>
          <div className={styles.add}>
            <Button
              type="primary"
              disabled={!measuring.data}
              onClick={() => measuring.data && onTake(measuring.data.degrees)}
            >
              {measuring.data
                ? t("tests.takeDegrees", { degrees: measuring.data.degrees })
                : t("tests.threePoints")}
            </Button>
            <Button disabled={points.length === 0} onClick={() => put([])}>
              {t("tests.again")}
            </Button>
            {measuring.error && <Wrong>{problemOf(measuring.error)?.detail ?? t("error.unknown")}</Wrong>}
          </div>
        </>
      )}
    </Dialog>
  );
}

interface MarkProps {
  point: Point;
  radius: number;
  label: string;
  onMove: (by: Point) => void;
}

/** A point that the arrow keys move by half a percent of the picture. */
function PointMark({ point, radius, label, onMove }: MarkProps) {
  const onKey = (event: KeyboardEvent) => {
    const by: Record<string, Point> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const step = by[event.key];
    if (!step) return;
    event.preventDefault();
    onMove(step);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot stand in a drawing
    <circle
      cx={point[0]}
      cy={point[1]}
      r={radius}
      role="button"
      aria-label={label}
      tabIndex={0}
      onKeyDown={onKey}
      fill="var(--accent)"
      fillOpacity="0.35"
      stroke="var(--accent)"
      strokeWidth={radius / 5}
    />
  );
}
