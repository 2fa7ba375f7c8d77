interface Props {
  /** In the same unit. */
  change: number;
  mdc: number;
  real: boolean;
  width?: number;
}

/** A change against what could be noise: the grey band is noise, the bar leans to the side it moved. */
export function MoveBar({ change, mdc, real, width = 150 }: Props) {
  const reach = Math.max(Math.abs(change), mdc) * 1.25;
  const x = (value: number) => width / 2 + (value / reach) * (width / 2 - 2);
  const colour = real ? (change > 0 ? "var(--ahead)" : "var(--behind)") : "var(--level)";
  return (
    <svg width={width} height={18} aria-hidden="true" style={{ display: "block" }}>
      <rect x={x(-mdc)} y={2} width={x(mdc) - x(-mdc)} height={14} fill="var(--hairline)" opacity="0.8" />
      <path d={`M${width / 2} 0V18`} stroke="var(--ink)" strokeWidth="1" />
      <rect x={Math.min(x(0), x(change))} y={6} width={Math.abs(x(change) - x(0))} height={6} fill={colour} />
    </svg>
  );
}
