import { colour, type Kind } from "../../../shared/judging";
import { across } from "../model";

interface Props {
  kind: Kind;
  /** Steps; a diamond, as everything that is measured. */
  truth?: number;
  /** Steps; a ring each, the second showing's dashed. */
  answers?: { value: number | undefined; again: boolean }[];
  /** How far off on average and how that spreads, steps; a disc with its whisker. */
  off?: { mean: number; sd: number | undefined };
  width: number;
  height: number;
}

/** A piece of the plumb line with what is true and what was said hanging from it. Rows stacked make the whole line. */
export function EyeLine({ kind, truth, answers = [], off, width, height }: Props) {
  const y = height / 2;
  const x = (steps: number) => across(kind, steps, width);
  const said = answers.flatMap(({ value, again }) => (value === undefined ? [] : [{ value, again }]));
  return (
    <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
      <path d={`M${width / 2} 0V${height}`} stroke="var(--ink)" strokeWidth="1" opacity="0.55" />
      {truth !== undefined && (
        <>
          {said.map(({ value, again }) => (
            <path
              key={`${again}`}
              d={`M${x(value)} ${y}H${x(truth)}`}
              stroke="var(--muted)"
              strokeWidth="1.2"
              strokeDasharray={again ? "3 2.5" : undefined}
            />
          ))}
          <Diamond x={x(truth)} y={y} colour={colour(kind, truth)} />
        </>
      )}
      {said.map(({ value, again }) => (
        <circle
          key={`${again}`}
          cx={x(value)}
          cy={y}
          r={again ? 8 : 5.5}
          fill={again ? "none" : "var(--ground)"}
          stroke={colour(kind, value)}
          strokeWidth="1.8"
          strokeDasharray={again ? "3 2.5" : undefined}
        />
      ))}
      {off && (
        <g style={{ color: colour(kind, off.mean) }}>
          {off.sd !== undefined && (
            <path
              d={`M${x(off.mean - 1.96 * off.sd)} ${y}H${x(off.mean + 1.96 * off.sd)}`}
              stroke="currentColor"
              strokeWidth="2"
            />
          )}
          <circle cx={x(off.mean)} cy={y} r="4.2" fill="currentColor" />
        </g>
      )}
    </svg>
  );
}

function Diamond({ x, y, colour }: { x: number; y: number; colour: string }) {
  return <path d={`M${x - 6} ${y}L${x} ${y - 6}L${x + 6} ${y}L${x} ${y + 6}z`} fill={colour} />;
}
