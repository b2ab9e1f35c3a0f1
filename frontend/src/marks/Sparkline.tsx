interface Props {
  points: { week: string; value: number }[];
  /** What the line is of, for those who do not see it. */
  label: string;
}

const WIDTH = 220;
const HEIGHT = 34;
const EDGE = 4;

/** A line over weeks, small enough to stand below a sentence; the last week is marked. */
export function Sparkline({ points, label }: Props) {
  const values = points.map((one) => one.value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const spread = high - low || 1;
  const x = (at: number) => EDGE + (at / Math.max(1, points.length - 1)) * (WIDTH - 2 * EDGE);
  const y = (value: number) => HEIGHT - EDGE - ((value - low) / spread) * (HEIGHT - 2 * EDGE);
  const last = points.length - 1;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={label}
      className="my-0.5 block max-w-full"
    >
      <path d={`M0 ${HEIGHT - 0.5}H${WIDTH}`} stroke="var(--rule)" />
      <polyline
        points={points.map((one, at) => `${x(at)},${y(one.value)}`).join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.25"
      />
      {points.map((one, at) => (
        <circle
          key={one.week}
          cx={x(at)}
          cy={y(one.value)}
          r={at === last ? 3 : 1.5}
          fill={at === last ? "var(--ink)" : "var(--sheet)"}
          stroke="var(--ink)"
        />
      ))}
    </svg>
  );
}
