import type { MouseEvent } from "react";
import type { Schemas } from "../api/client";
import styles from "./BodyFigure.module.css";
import { HALF, SHAPES, type View } from "./shapes";

type Side = Schemas["Side"];

/** How a region of one side is drawn. */
export interface Shade {
  fill: string;
  opacity?: number;
  /** Undecided: hatched instead of filled. */
  hatched?: boolean;
  /** A line round it, in its colour. */
  line?: string;
}

interface Props {
  /** What it shows, for whoever cannot see it. */
  label: string;
  shade: (region: string, side: Side) => Shade | undefined;
  picked?: string;
  /** Called with a region and the side that was touched. */
  onPick?: (region: string, side: Side) => void;
  words: Record<View | "left" | "right", string>;
  /** Width of both views together, px. */
  width?: number;
}

/** Front and back of the figure with every region that can be seen; each half is drawn on its own. */
export function BodyFigure({ label, shade, picked, onPick, words, width = 340 }: Props) {
  const pick = (event: MouseEvent<SVGSVGElement>) => {
    const shape = (event.target as SVGElement).dataset;
    if (shape.region && shape.side) onPick?.(shape.region, shape.side as Side);
  };
  return (
    // Pointing is a short cut: every place that uses the figure offers the same by a list.
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list beside it is the way by key
    <svg
      viewBox="0 0 340 412"
      width={width}
      className={styles.figure}
      role="img"
      aria-label={label}
      onClick={onPick && pick}
      data-pickable={!!onPick}
    >
      <defs>
        <clipPath id="half">
          <path d={HALF} />
        </clipPath>
        <pattern
          id="undecided"
          width="4"
          height="4"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V4" stroke="var(--level)" strokeWidth="1.5" />
        </pattern>
      </defs>
      {(["front", "back"] as const).map((view, index) => (
        <g key={view} transform={`translate(${85 + 170 * index} 18)`}>
          <text y="-5" textAnchor="middle" className={styles.word}>
            {words[view]}
          </text>
          <Half view={view} mirrored={false} shade={shade} picked={picked} />
          <Half view={view} mirrored shade={shade} picked={picked} />
          <path d="M0 -2V392" stroke="var(--ink)" strokeWidth="0.5" strokeDasharray="2 3" opacity="0.5" />
          <SideLetters view={view} words={words} />
        </g>
      ))}
    </svg>
  );
}

/** Seen from the front the client's left is on our right; seen from behind it is on our left. */
function sideOf(view: View, mirrored: boolean): Side {
  return (view === "front") === mirrored ? "right" : "left";
}

function Half({
  view,
  mirrored,
  shade,
  picked,
}: Pick<Props, "shade" | "picked"> & { view: View; mirrored: boolean }) {
  const side = sideOf(view, mirrored);
  return (
    <g transform={mirrored ? "scale(-1 1)" : undefined}>
      <path d={HALF} fill="var(--sunken)" stroke="var(--muted)" strokeWidth="0.9" />
      <g clipPath="url(#half)">
        {SHAPES[view].map(({ region, path }) => {
          const drawn = shade(region, side);
          if (!drawn) return null;
          return (
            <path
              key={region}
              d={path}
              data-region={region}
              data-side={side}
              fill={drawn.hatched ? "url(#undecided)" : drawn.fill}
              fillOpacity={drawn.hatched ? 1 : (drawn.opacity ?? 1)}
              stroke={region === picked ? "var(--accent)" : (drawn.line ?? "var(--muted)")}
              strokeWidth={region === picked ? 1.8 : drawn.line ? 1.4 : 0.4}
            />
          );
        })}
      </g>
    </g>
  );
}

function SideLetters({ view, words }: { view: View; words: Props["words"] }) {
  return (["left", "right"] as const).map((side) => {
    const right = sideOf(view, false) === side;
    return (
      <text
        key={side}
        x={right ? 62 : -62}
        y="60"
        textAnchor="middle"
        className={styles.letter}
        style={{ fill: `var(--${side})` }}
      >
        {words[side]}
      </text>
    );
  });
}
