import { laidOut, type Mark } from "../model";

interface Props {
  label: string;
  marks: Mark[];
  width?: number;
  height?: number;
  colour?: string;
  /** Lowest and highest value shown. */
  span?: [number, number];
  /** A value that a level line is drawn at. */
  level?: number;
}

/** A value over the rounds with its noise band: what lies within the band of the first is no change. */
export function TrendLine({
  label,
  marks,
  width = 250,
  height = 64,
  colour = "var(--ink)",
  span,
  level,
}: Props) {
  if (marks.length === 0) return null;
  const points = laidOut(marks, width, height, span);
  const line = points.map(({ x, y }, index) => `${index === 0 ? "M" : "L"}${x} ${y}`).join("");
  const band = [
    ...points.map(({ x, top }, index) => `${index === 0 ? "M" : "L"}${x} ${top}`),
    ...points.toReversed().map(({ x, bottom }) => `L${x} ${bottom}`),
  ].join("");
  const zero =
    level !== undefined && span
      ? laidOut([{ on: marks[0]?.on ?? "", value: level, band: 0 }], width, height, span)[0]
      : undefined;
  const many = points.length > 30;
  return (
    <svg width={width} height={height} role="img" aria-label={label} style={{ display: "block" }}>
      {points.length > 1 && <path d={`${band}z`} fill={colour} opacity="0.14" />}
      {zero && <path d={`M0 ${zero.y}H${width}`} stroke="var(--muted)" strokeDasharray="2 3" />}
      <path d={line} fill="none" stroke={colour} strokeWidth="1.6" />
      {!many &&
        points.map(({ x, y, top, bottom }) => (
          <g key={x}>
            <path d={`M${x} ${top}V${bottom}`} stroke={colour} strokeWidth="1" opacity="0.5" />
            <circle cx={x} cy={y} r="2.6" fill={colour} />
          </g>
        ))}
    </svg>
  );
}
