// The round in three drawings, as its pages draw it.
import type { ReactNode } from "react";

function Sketch({ children }: { children: ReactNode }) {
  return (
    <svg viewBox="0 0 240 120" width="240" height="120" aria-hidden="true">
      {children}
    </svg>
  );
}

/** A tape around a limb, left against right, and what error alone may give. */
export function Measures() {
  return (
    <Sketch>
      {[60, 180].map((x, side) => (
        <g key={x}>
          <path
            d={`M${x - 26} 8C${x - 20} 40 ${x - 32} 62 ${x - 20} 112M${x + 26} 8C${x + 20} 40 ${x + 32} 62 ${x + 20} 112`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
          <ellipse
            cx={x}
            cy="56"
            rx={side === 0 ? 29 : 27}
            ry="8"
            fill="none"
            stroke={side === 0 ? "var(--left)" : "var(--right)"}
            strokeWidth="3"
          />
        </g>
      ))}
      <rect x="104" y="48" width="32" height="16" fill="var(--hairline)" />
      <path d="M120 40V72" stroke="var(--ink)" />
      <rect x="96" y="52" width="24" height="8" fill="var(--left)" />
    </Sketch>
  );
}

const MARKS = [
  { y: 18, at: -34, half: 22, tone: "behind" },
  { y: 44, at: 6, half: 26, tone: "level" },
  { y: 70, at: 36, half: 20, tone: "ahead" },
  { y: 96, at: -10, half: 48, tone: "level" },
] as const;

/** Marks about a plumb line. */
export function Hangs() {
  return (
    <Sketch>
      <path d="M120 0V108" stroke="var(--ink)" strokeWidth="1.5" />
      <path d="M113 106h14L120 120z" fill="var(--accent)" />
      {MARKS.map(({ y, at, half, tone }) => (
        <g
          key={y}
          stroke={`var(--${tone})`}
          fill={tone === "level" ? "var(--ground)" : `var(--${tone})`}
          strokeWidth="2"
        >
          <path
            d={`M${120 + at - half} ${y}H${120 + at + half}`}
            strokeDasharray={tone === "level" ? "4 3" : undefined}
          />
          <circle cx={120 + at} cy={y} r="5.5" />
        </g>
      ))}
    </Sketch>
  );
}

/** Sets of each card, day by day, as a path of short strokes. */
const DAYS = [
  [3, 2, 4],
  [4, 3],
  [2, 4, 3],
];
const strokes = (sets: number): string =>
  Array.from({ length: sets }, (_, set) => `M${set * 8 + 3} 0V10`).join("");

/** Days with their sets, and a line that leaves its band of noise. */
export function Gives() {
  return (
    <Sketch>
      {DAYS.map((cards, day) => (
        <g key={cards.join()} transform={`translate(${day * 44} 8)`}>
          <path d="M0 0H34" stroke="var(--ink)" strokeWidth="2" />
          {cards.map((sets, card) => (
            <g key={sets} transform={`translate(0 ${14 + card * 24})`}>
              <path
                d={strokes(sets)}
                stroke={card === 0 ? "var(--accent)" : "var(--muted)"}
                strokeWidth="6"
              />
              <path d="M0 16H34" stroke="var(--hairline)" />
            </g>
          ))}
        </g>
      ))}
      <path d="M146 66H238V90H146z" fill="var(--ink)" opacity="0.12" />
      <path d="M146 78L176 82L206 60L236 26" fill="none" stroke="var(--ahead)" strokeWidth="2" />
      {[
        [146, 78],
        [176, 82],
        [206, 60],
        [236, 26],
      ].map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r="3.4" fill="var(--ahead)" />
      ))}
    </Sketch>
  );
}
