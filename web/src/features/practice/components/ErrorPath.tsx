import { scaleLinear, scaleTime } from "@visx/scale";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";

interface Props {
  points: Schemas["MeasuringPoint"][];
  /** What is assumed of someone unknown, %. */
  assumed: number;
}

const WIDTH = 300;
const HEIGHT = 74;
const LEFT = 42;

/** A measurer's error as it was known after each day: from what is assumed of anyone to what their readings say. */
export function ErrorPath({ points, assumed }: Props) {
  const { t } = useTranslation();
  const last = points.at(-1);
  const first = points[0];
  if (!first || !last) return null;
  const most = Math.max(2 * assumed, ...points.map(({ tem_pct }) => tem_pct));
  const y = scaleLinear<number>({ domain: [0, most], range: [HEIGHT - 16, 6] });
  const times = points.map(({ date }) => new Date(date));
  const x = scaleTime<number>({
    domain: [times[0] ?? new Date(), times.at(-1) ?? new Date()],
    range: [LEFT + 6, WIDTH - 8],
  });
  // One day has no path: its mark stands at the end.
  const at = (date: string) => (points.length > 1 ? x(new Date(date)) : WIDTH - 8);
  const path = points.map(({ date, tem_pct }) => `${at(date)} ${y(tem_pct)}`).join("L");
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`${t("practice.overTime")}: ${points.map((p) => `${day(p.date)} ${p.tem_pct.toFixed(2)}`).join(", ")}`}
    >
      <path d={`M${LEFT} ${y(assumed)}H${WIDTH - 4}`} stroke="var(--muted)" strokeDasharray="3 3" />
      <path d={`M${LEFT} ${y(0)}H${WIDTH - 4}`} stroke="var(--hairline)" />
      <g fontSize="11" fill="var(--muted)">
        <text x={LEFT - 6} y={y(assumed) + 4} textAnchor="end">
          {assumed.toFixed(1)} %
        </text>
        <text x={LEFT - 6} y={y(0) + 4} textAnchor="end">
          0
        </text>
        <text x={LEFT + 2} y={HEIGHT - 2}>
          {day(first.date)}
        </text>
        <text x={WIDTH - 4} y={HEIGHT - 2} textAnchor="end">
          {points.length > 1 && day(last.date)}
        </text>
      </g>
      {points.length > 1 && <path d={`M${path}`} fill="none" stroke="var(--ink)" strokeWidth="1.6" />}
      {points.map(({ date, tem_pct }) => (
        <circle key={date} cx={at(date)} cy={y(tem_pct)} r="3.2" fill="var(--accent)" />
      ))}
    </svg>
  );
}
