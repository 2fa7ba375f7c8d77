import { AxisBottom, AxisLeft } from "@visx/axis";
import { localPoint } from "@visx/event";
import { Area, LinePath } from "@visx/shape";
import { TooltipWithBounds } from "@visx/tooltip";
import { type KeyboardEvent, type PointerEvent, useState } from "react";
import { day } from "../format";
import styles from "./OverTime.module.css";
import { laidOut, type Mark, nearest, type Span, stepped, ticksOf, valueTicks } from "./timeline";

interface Props {
  /** What the line shows, in words. */
  label: string;
  marks: Mark[];
  /** A value as it is read, without and with its unit. */
  format: (value: number) => string;
  unit: string;
  width?: number;
  height?: number;
  colour?: string;
  /** Lowest and highest value shown; those of the marks with their bands when not said. */
  span?: Span;
  /** A value that a line is drawn at. */
  level?: number;
}

const LEFT = 44;
const BOTTOM = 18;
const EDGE = 6;
/** More marks than this lie too close to be told apart. */
const MANY = 30;
const LABEL = { fontSize: 11, fill: "var(--muted)", fontFamily: "inherit" } as const;

/**
 * A value over the days with what it may be off by: what lies within the band of the first is no change.
 * Each value is read under the pointer or finger, and with the arrow keys once the chart has the focus.
 */
export function OverTime({ label, marks, format, unit, colour = "var(--ink)", span, level, ...size }: Props) {
  const { width = 270, height = 92 } = size;
  const [at, setAt] = useState<number>();
  const first = marks[0];
  const last = marks.at(-1);
  if (!first || !last) return null;
  const scales = laidOut(
    marks,
    { left: LEFT, right: width - EDGE, top: EDGE, bottom: height - BOTTOM },
    span,
  );
  const x = ({ on }: Mark) => scales.x(Date.parse(on)) ?? 0;
  const y = (value: number) => scales.y(value) ?? 0;
  const read = at === undefined ? undefined : marks[at];
  const said = ({ on, value, band, otherwise }: Mark) =>
    `${day(on)}: ${format(value)} ${unit}${band > 0 ? ` ± ${format(band)}` : ""}${otherwise ? `, ${otherwise}` : ""}`;
  const point = (event: PointerEvent<SVGSVGElement>) => {
    const place = localPoint(event)?.x ?? 0;
    setAt(nearest(marks.map(x), place));
  };
  const press = (event: KeyboardEvent) => {
    const next = stepped(event.key, at ?? marks.length - 1, marks.length);
    if (next === undefined) return;
    event.preventDefault();
    // A step among values is no step to the next region or client.
    event.stopPropagation();
    setAt(next);
  };
  return (
    <div
      className={styles.chart}
      style={{ width }}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={1}
      aria-valuemax={marks.length}
      aria-valuenow={(at ?? marks.length - 1) + 1}
      aria-valuetext={said(read ?? last)}
      onKeyDown={press}
      onFocus={() => setAt((now) => now ?? marks.length - 1)}
      onBlur={() => setAt(undefined)}
    >
      <svg
        width={width}
        height={height}
        aria-hidden="true"
        onPointerMove={point}
        onPointerDown={point}
        onPointerLeave={() => setAt(undefined)}
      >
        <AxisLeft
          scale={scales.y}
          left={LEFT}
          tickValues={valueTicks(marks, y, span, level)}
          tickFormat={(value) => format(Number(value))}
          hideTicks
          stroke="var(--hairline)"
          tickLabelProps={{ ...LABEL, textAnchor: "end", dx: 2, dy: 4 }}
        />
        <AxisBottom
          scale={scales.x}
          top={height - BOTTOM}
          tickValues={ticksOf(marks).map((on) => Date.parse(on))}
          tickFormat={(value) => day(new Date(Number(value)).toISOString().slice(0, 10))}
          tickLength={4}
          stroke="var(--hairline)"
          tickStroke="var(--hairline)"
          tickLabelProps={(_, index, ticks) => ({
            ...LABEL,
            dy: -2,
            textAnchor: ticks.length === 1 ? "middle" : index === 0 ? "start" : "end",
          })}
        />
        {level !== undefined && (
          <path d={`M${LEFT} ${y(level)}H${width - EDGE}`} stroke="var(--muted)" strokeDasharray="2 3" />
        )}
        <Area
          data={marks}
          x={x}
          y0={({ value, band }) => y(value - band)}
          y1={({ value, band }) => y(value + band)}
          fill={colour}
          opacity={0.14}
        />
        <LinePath data={marks} x={x} y={({ value }) => y(value)} stroke={colour} strokeWidth={1.6} />
        {marks.length <= MANY &&
          marks.map((mark) => (
            <g key={mark.on} stroke={colour}>
              <path
                d={`M${x(mark)} ${y(mark.value + mark.band)}V${y(mark.value - mark.band)}`}
                opacity="0.5"
              />
              <circle
                cx={x(mark)}
                cy={y(mark.value)}
                r={mark.otherwise ? 3 : 2.6}
                fill={mark.otherwise ? "var(--ground)" : colour}
              />
            </g>
          ))}
        {read && (
          <>
            <path d={`M${x(read)} 0V${height - BOTTOM}`} stroke="var(--ink)" opacity="0.55" />
            <circle
              cx={x(read)}
              cy={y(read.value)}
              r="4.6"
              fill="var(--ground)"
              stroke={colour}
              strokeWidth="2"
            />
          </>
        )}
      </svg>
      {read && (
        <TooltipWithBounds
          key={at}
          left={x(read)}
          top={y(read.value)}
          offsetTop={-34}
          unstyled
          applyPositionStyle
          className={styles.value}
          aria-hidden="true"
        >
          {said(read)}
        </TooltipWithBounds>
      )}
    </div>
  );
}
