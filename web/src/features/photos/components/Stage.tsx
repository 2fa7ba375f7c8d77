import { type ReactNode, useEffect, useEffectEvent, useState } from "react";
import { useTranslation } from "react-i18next";
import { day } from "../../../shared/format";
import { type Frame, RegionFrames } from "../../../shared/judging";
import { SideMark } from "../../../shared/ui";
import { useKeys } from "../../../shared/ui/keys";
import { useOutline, viewOf } from "../api";
import { type Laid, type Mode, matrix, mirroredAbout, type Photo, pathOf, plumb } from "../model";
import { SightStore } from "../sight";
import { useSight } from "../useSight";
import { Lines } from "./Lines";
import { Layer, Overlay, Pane } from "./Pane";
import styles from "./Table.module.css";
import { Wipe } from "./Wipe";

/** How long each picture stands when two alternate. */
const ALTERNATE_MS = 900;
/** Farther than any picture reaches, px. */
const FAR = 1e4;

interface Side {
  photo: Photo;
  date: string;
}

interface Props {
  now: Side;
  then?: Side;
  laid?: Laid;
  mode: Mode;
  frames: Frame[];
  /** What the chosen tool draws over this round's picture, and puts on its pane. */
  tool?: ReactNode;
  toolNotes?: ReactNode;
  /** What is said on each picture's pane. */
  notesOn: (photo: Photo) => ReactNode;
}

/** Shows the other picture every so often, unless whoever looks wants nothing to move. */
function useAlternating(on: boolean, onTurn: () => void) {
  const turn = useEffectEvent(onTurn);
  useEffect(() => {
    if (!on || matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    const timer = setInterval(() => turn(), ALTERNATE_MS);
    return () => clearInterval(timer);
  }, [on]);
}

/** The light table: one or two windows on the same place, in one of five ways. */
export function Stage({ now, then, laid, mode, frames, tool, toolNotes, notesOn }: Props) {
  const { t } = useTranslation();
  const [store] = useState(() => new SightStore());
  const [front, setFront] = useState<"now" | "then">("now");
  const [half, setHalf] = useState<"left" | "right">("left");
  const [wipe, setWipe] = useState(50);

  const over = laid ? matrix(laid) : undefined;
  const pair = then && over ? then : undefined;
  const shown: Mode | "single" = mode === "halves" || pair ? mode : "single";
  const outlines = shown === "outlines" || shown === "halves";
  const nowLines = useOutline(now.photo, outlines);
  const thenLines = useOutline(pair?.photo, shown === "outlines");

  const { resized, zoom, showWhole } = useSight(store, now.photo, shown);
  useAlternating(shown === "alternate", () => setFront((f) => (f === "now" ? "then" : "now")));
  const swap = () => {
    if (shown === "halves") setHalf((h) => (h === "left" ? "right" : "left"));
    else setFront((f) => (f === "now" ? "then" : "now"));
  };
  useKeys({ alternate: swap, larger: () => zoom(1.25), smaller: () => zoom(0.8), whole: showWhole });

  const label = (side: Side, when: "earlier" | "now") =>
    t("photos.pane", { when: t(`photos.when.${when}`), date: day(side.date), pose: side.photo.pose ?? "" });
  const when = (side: Side, which: "earlier" | "now") => (
    <figcaption className={styles.when}>
      <strong>{t(`photos.when.${which}`)}</strong> {day(side.date)}
    </figcaption>
  );
  const nowLayer = (opacity = 1) => (
    <Layer store={store} reference={now.photo} photo={now.photo} src={viewOf(now.photo)} opacity={opacity} />
  );
  const thenLayer = (opacity = 1) =>
    pair && (
      <Layer
        store={store}
        reference={now.photo}
        photo={pair.photo}
        src={viewOf(pair.photo)}
        over={over}
        opacity={opacity}
      />
    );
  const overlay = (extra?: ReactNode, label?: string) => (
    <Overlay store={store} reference={now.photo} label={label}>
      <Lines photo={now.photo} />
      {extra}
    </Overlay>
  );
  const framed = <RegionFrames frames={frames} />;
  const common = { store, onResize: resized };
  const line = plumb(now.photo);
  // In a picture from the front the client's left lies on the right.
  const onRight = (now.photo.measured?.landmarks["hip-joint-left"]?.x ?? 0) > (line?.foot.x ?? 0);
  const covered = (half === "left") === onRight ? "left" : "right";

  return (
    <div className={styles.table}>
      {shown === "beside" && pair && (
        <Pane
          {...common}
          label={label(pair, "earlier")}
          notes={
            <>
              {notesOn(pair.photo)}
              {when(pair, "earlier")}
            </>
          }
        >
          {thenLayer()}
          {overlay(framed)}
        </Pane>
      )}
      {(shown === "beside" || shown === "single") && (
        <Pane
          {...common}
          label={label(now, "now")}
          notes={
            <>
              {notesOn(now.photo)}
              {when(now, "now")}
              {toolNotes}
            </>
          }
        >
          {nowLayer()}
          {overlay(
            <>
              {!tool && framed}
              {tool}
            </>,
            tool ? t("photos.tools.marks") : undefined,
          )}
        </Pane>
      )}
      {shown === "alternate" && pair && (
        <Pane
          {...common}
          label={label(now, "now")}
          notes={front === "now" ? when(now, "now") : when(pair, "earlier")}
        >
          {nowLayer(front === "now" ? 1 : 0)}
          {thenLayer(front === "then" ? 1 : 0)}
          {overlay(framed)}
        </Pane>
      )}
      {shown === "wipe" && pair && (
        <Pane
          {...common}
          label={label(now, "now")}
          notes={
            <>
              <Wipe at={wipe} onMove={setWipe} />
              {when(pair, "earlier")}
              <figcaption className={styles.when} style={{ left: "auto", right: 0 }}>
                <strong>{t("photos.when.now")}</strong> {day(now.date)}
              </figcaption>
            </>
          }
        >
          {nowLayer()}
          <div className={styles.layer} style={{ clipPath: `inset(0 ${100 - wipe}% 0 0)` }}>
            {thenLayer()}
          </div>
          {overlay(framed)}
        </Pane>
      )}
      {shown === "halves" && line && (
        <Pane
          {...common}
          label={label(now, "now")}
          notes={
            <>
              {when(now, "now")}
              <div className={styles.ask}>
                <SideMark side={half} /> {t("photos.halfOf", { side: t(`photos.sideOf.${half}`) })}
                <button type="button" data-handle onClick={swap}>
                  {t("photos.flip")}
                </button>
              </div>
            </>
          }
        >
          {nowLayer()}
          <Layer
            store={store}
            reference={now.photo}
            photo={now.photo}
            src={viewOf(now.photo)}
            over={mirroredAbout(line)}
            half={covered}
            opacity={0.6}
          />
          {overlay(
            <g clipPath="url(#half)">
              <clipPath id="half">
                <rect
                  x={covered === "left" ? line.foot.x - FAR : line.foot.x}
                  y={line.foot.y - FAR}
                  width={FAR}
                  height={2 * FAR}
                  transform={`rotate(${line.lean} ${line.foot.x} ${line.foot.y})`}
                />
              </clipPath>
              <path
                className={styles.outlineThen}
                style={{ stroke: `var(--${half})`, transform: mirroredAbout(line) }}
                d={pathOf(nowLines.data?.lines ?? [])}
              />
            </g>,
          )}
        </Pane>
      )}
      {shown === "outlines" && pair && (
        <Pane
          {...common}
          label={label(now, "now")}
          notes={
            <figcaption className={styles.when}>
              <svg width="26" height="8" aria-hidden="true">
                <path d="M0 4h26" className={styles.outlineThen} />
              </svg>
              {t("photos.when.earlier")} {day(pair.date)}
              <svg width="26" height="8" aria-hidden="true">
                <path d="M0 4h26" className={styles.outlineNow} />
              </svg>
              {t("photos.when.now")} {day(now.date)}
            </figcaption>
          }
        >
          {nowLayer(0.22)}
          {overlay(
            <>
              <g style={{ transform: over }}>
                <path className={styles.outlineThen} d={pathOf(thenLines.data?.lines ?? [])} />
              </g>
              <path className={styles.outlineNow} d={pathOf(nowLines.data?.lines ?? [])} />
              {framed}
            </>,
          )}
        </Pane>
      )}
    </div>
  );
}
