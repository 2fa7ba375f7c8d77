import { useGesture } from "@use-gesture/react";
import { type ReactNode, useEffect, useEffectEvent, useRef } from "react";
import { type Photo, plumb, zoomed } from "../model";
import { type SightStore, useSight } from "../sight";
import styles from "./Table.module.css";

const WHEEL_STEP = 0.0016;

interface Props {
  store: SightStore;
  label: string;
  children: ReactNode;
  /** What is written on the pane, above everything. */
  notes?: ReactNode;
  onResize?: (width: number, height: number) => void;
}

/** A window on the light table: dragging pans, wheel and two fingers zoom, for all windows at once. */
export function Pane({ store, label, children, notes, onResize }: Props) {
  const element = useRef<HTMLElement>(null);
  const resized = useEffectEvent((width: number, height: number) => onResize?.(width, height));

  const bind = useGesture(
    {
      onDrag: ({ delta: [dx, dy], event, pinching, cancel }) => {
        if (pinching || (event.target as HTMLElement).closest("[data-handle]")) return cancel();
        const sight = store.get();
        store.set({ ...sight, x: sight.x + dx, y: sight.y + dy });
      },
      onPinch: ({ origin: [x, y], delta: [change], memo }) => {
        const box = memo ?? element.current?.getBoundingClientRect();
        const at = { x: x - box.left, y: y - box.top };
        store.set(zoomed(store.get(), 1 + change / store.get().scale, at));
        return box;
      },
    },
    { pinch: { from: () => [store.get().scale, 0] }, drag: { filterTaps: true } },
  );

  useEffect(() => {
    const pane = element.current;
    if (!pane) return;
    // The browser would scroll the page; React's own wheel handlers cannot keep it from that.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = pane.getBoundingClientRect();
      const at = { x: event.clientX - box.left, y: event.clientY - box.top };
      store.set(zoomed(store.get(), Math.exp(-event.deltaY * WHEEL_STEP), at));
    };
    const observer = new ResizeObserver(() => resized(pane.clientWidth, pane.clientHeight));
    pane.addEventListener("wheel", onWheel, { passive: false });
    observer.observe(pane);
    return () => {
      pane.removeEventListener("wheel", onWheel);
      observer.disconnect();
    };
  }, [store]);

  return (
    <figure ref={element} className={styles.pane} aria-label={label} {...bind()}>
      {children}
      {notes}
    </figure>
  );
}

interface LayerProps {
  store: SightStore;
  /** The picture whose plumb line everything hangs from. */
  reference: Photo;
  photo: Photo;
  src: string;
  /** CSS that lays the picture over the reference. */
  over?: string;
  /** Shows only one side of the plumb line. */
  half?: "left" | "right";
  opacity?: number;
}

/** CSS from a picture's pixels to the screen: upright by its plumb line, then scaled and shifted. */
function upright(reference: Photo): string {
  const line = plumb(reference);
  if (!line) return "";
  const { x, y } = line.foot;
  return ` translate(${x}px, ${y}px) rotate(${-line.lean}deg) translate(${-x}px, ${-y}px)`;
}

/** A picture on the table. */
export function Layer({ store, reference, photo, src, over = "", half, opacity = 1 }: LayerProps) {
  const clip = useRef<HTMLDivElement>(null);
  const image = useRef<HTMLImageElement>(null);
  const foot = plumb(reference)?.foot.x ?? 0;
  const turn = upright(reference);
  useSight(store, ({ scale, x, y }) => {
    if (image.current)
      image.current.style.transform = `translate(${x}px, ${y}px) scale(${scale})${turn} ${over}`;
    if (clip.current && half) {
      const at = x + foot * scale;
      clip.current.style.clipPath =
        half === "left" ? `inset(0 calc(100% - ${at}px) 0 0)` : `inset(0 0 0 ${at}px)`;
    }
  });
  return (
    <div ref={clip} className={styles.layer} style={{ opacity }}>
      <img
        ref={image}
        src={src}
        alt=""
        draggable={false}
        width={photo.measured?.width_px}
        height={photo.measured?.height_px}
      />
    </div>
  );
}

interface OverlayProps {
  store: SightStore;
  reference: Photo;
  /** What the group of points in it is called; without points the lines are decoration. */
  label?: string;
  children: ReactNode;
}

/** Lines over the pictures, in the reference's pixels; strokes keep their width at every scale. */
export function Overlay({ store, reference, label, children }: OverlayProps) {
  const group = useRef<SVGGElement>(null);
  const line = plumb(reference);
  const turn = line ? ` rotate(${-line.lean} ${line.foot.x} ${line.foot.y})` : "";
  useSight(store, ({ scale, x, y }) => {
    group.current?.setAttribute("transform", `translate(${x} ${y}) scale(${scale})${turn}`);
  });
  return (
    <svg
      className={styles.overlay}
      aria-hidden={label ? undefined : true}
      role={label ? "group" : undefined}
      aria-label={label}
    >
      <g ref={group}>{children}</g>
    </svg>
  );
}
