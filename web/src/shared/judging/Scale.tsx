import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";
import { shortcut } from "../ui/acts";
import styles from "./Judging.module.css";

export type Kind = Schemas["RatingKind"];

/** From the left: behind hangs left, ahead right; of two sides the larger one, positive for the left, is leant to. */
export const STOPS: Record<Kind, number[]> = { standing: [-2, -1, 0, 1, 2], "left-right": [2, 1, 0, -1, -2] };

export function colour(kind: Kind, value: number): string {
  if (value === 0) return "var(--level)";
  if (kind === "standing") return value < 0 ? "var(--behind)" : "var(--ahead)";
  return value > 0 ? "var(--left)" : "var(--right)";
}

interface Props {
  kind: Kind;
  value?: number;
  onRate: (value: number) => void;
}

/** Five stops across a plumb line, each with its key. */
export function Scale({ kind, value, onRate }: Props) {
  const { t } = useTranslation();
  const words = t(`judging.stops.${kind === "standing" ? "standing" : "sides"}`, {
    returnObjects: true,
  }) as string[];
  const act = kind === "standing" ? "standing" : "sides";
  return (
    <div className={styles.scale}>
      {STOPS[kind].map((stop, i) => (
        <button
          key={stop}
          type="button"
          aria-pressed={value === stop}
          aria-keyshortcuts={shortcut(act, i)}
          aria-label={words[i]}
          title={words[i]}
          className={styles.stop}
          style={{ color: colour(kind, stop) }}
          onClick={() => onRate(stop)}
        >
          <svg width="46" height="30" viewBox="0 0 46 30" aria-hidden="true">
            <path d="M0 15H46" stroke="var(--hairline)" strokeWidth="1" />
            {stop === 0 && <path d="M23 0V30" stroke="var(--ink)" strokeWidth="1.500" />}
            <StopMark kind={kind} stop={stop} chosen={value === stop} />
          </svg>
          <kbd>{shortcut(act, i)}</kbd>
        </button>
      ))}
      <span className={styles.word}>{value === undefined ? "" : words[STOPS[kind].indexOf(value)]}</span>
    </div>
  );
}

/** Standing is a disc; a side is a half-disc on that side, so that the two scales are never mistaken for each other. */
function StopMark({ kind, stop, chosen }: { kind: Kind; stop: number; chosen: boolean }) {
  const r = 5 + Math.abs(stop) * 1.5;
  const paint = { fill: chosen ? "currentColor" : "var(--surface)", stroke: "currentColor", strokeWidth: 2 };
  if (kind === "standing" || stop === 0) return <circle cx="23" cy="15" r={r} {...paint} />;
  const sweep = stop > 0 ? 0 : 1;
  return <path d={`M23 ${15 - r}A${r} ${r} 0 0 ${sweep} 23 ${15 + r}Z`} {...paint} />;
}

/** A rating in a list: where it hangs on a short line. */
export function MiniScale({ kind, value }: { kind: Kind; value: number | null | undefined }) {
  return (
    <svg width="44" height="14" viewBox="0 0 44 14" aria-hidden="true">
      <path d="M2 7H42" stroke="var(--hairline)" strokeWidth="1" />
      <path d="M22 1V13" stroke="var(--muted)" strokeWidth="1" />
      {typeof value === "number" && (
        <g
          transform={`translate(${(kind === "standing" ? value : -value) * 9 - 1} -8)`}
          style={{ color: colour(kind, value) }}
        >
          <g transform="scale(.62) translate(14 9)">
            <StopMark kind={kind} stop={value} chosen />
          </g>
        </g>
      )}
      {value === null && (
        <text x="22" y="11" textAnchor="middle" fontSize="11" fill="var(--muted)" stroke="none">
          ?
        </text>
      )}
    </svg>
  );
}
