interface Props {
  /** Ratios a : b by measure; null with nothing on side b. */
  ratios: { measure: string; ratio: number | null; empty: boolean }[];
  /** The measure that the beam itself shows; the others are ticks. */
  measure: string;
  band: { low: number; high: number } | null;
  /** Hollow for planned, solid for done. */
  hollow: boolean;
  width?: number;
}

const STEEPEST = 15;
/** Degrees for each doubling of one side. */
const PER_DOUBLING = 9;

/** Side a goes down on the left when it is the heavier one. */
function tilt(ratio: number | null): number {
  if (ratio === null) return -STEEPEST;
  if (ratio <= 0) return STEEPEST;
  const degrees = Math.log2(ratio) * PER_DOUBLING;
  return -Math.max(-STEEPEST, Math.min(STEEPEST, degrees));
}

const GLYPHS: Record<string, (x: number, y: number) => React.ReactNode> = {
  sets: (x, y) => <path d={`M${x - 4} ${y}h8`} strokeWidth="2" />,
  reps: (x, y) => <circle cx={x} cy={y} r="2.6" fill="var(--sheet)" strokeWidth="1.25" />,
  volume_load_kg: (x, y) => (
    <rect x={x - 2.4} y={y - 2.4} width="4.8" height="4.8" fill="var(--ink)" stroke="none" />
  ),
  tut_s: (x, y) => (
    <path d={`M${x} ${y - 3.2}l3.2 5.6h-6.4z`} fill="var(--sheet)" strokeWidth="1.25" />
  ),
};

/** The sign under which a measure stands on every beam. */
export function MeasureGlyph({ measure }: { measure: string }) {
  return (
    <svg
      viewBox="0 0 12 10"
      width="12"
      height="10"
      aria-hidden="true"
      className="inline-block"
      stroke="var(--ink)"
      fill="none"
    >
      {GLYPHS[measure]?.(6, 5)}
    </svg>
  );
}

/** A balance beam: it tilts with the ratio, over the allowed tilt, one tick for each measure. */
export function Beam({ ratios, measure, band, hollow, width = 164 }: Props) {
  const height = 48;
  const cx = width / 2;
  const cy = height / 2 - 1;
  const arm = width / 2 - 20;
  const at = (degrees: number, radius: number): [number, number] => {
    const radians = (degrees * Math.PI) / 180;
    return [cx + radius * Math.cos(radians), cy + radius * Math.sin(radians)];
  };
  const wedge = ({ low, high }: { low: number; high: number }, side: 1 | -1) => {
    const [x1, y1] = at(tilt(low), side * arm);
    const [x2, y2] = at(tilt(high), side * arm);
    return `M${cx} ${cy}L${x1} ${y1}A${arm} ${arm} 0 0 0 ${x2} ${y2}Z`;
  };
  const deciding = ratios.find((one) => one.measure === measure);
  const level = deciding && !deciding.empty ? tilt(deciding.ratio) : null;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      aria-hidden="true"
      className="block"
    >
      {band &&
        ([1, -1] as const).map((side) => (
          <path key={side} d={wedge(band, side)} fill="var(--band)" />
        ))}
      <path
        d={`M${cx} ${cy}l6 ${height - cy - 2}h-12z`}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeLinejoin="round"
      />
      {level === null ? (
        <path d={`M${cx - arm} ${cy}h${arm * 2}`} stroke="var(--rule)" strokeDasharray="2 4" />
      ) : (
        <g
          className="beam-arm"
          style={{ rotate: `${level}deg`, transformOrigin: `${cx}px ${cy}px` }}
        >
          <rect
            x={cx - arm}
            y={cy - 2}
            width={arm * 2}
            height="4"
            fill={hollow ? "var(--sheet)" : "var(--ink)"}
            stroke="var(--ink)"
          />
        </g>
      )}
      <g stroke="var(--ink)" fill="none">
        {ratios
          .filter((one) => !one.empty)
          .map((one) => {
            const [x, y] = at(tilt(one.ratio), arm + 8);
            return <g key={one.measure}>{GLYPHS[one.measure]?.(x, y)}</g>;
          })}
      </g>
    </svg>
  );
}
