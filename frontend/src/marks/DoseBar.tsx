import { fill } from "./hatch";

interface Props {
  planned: number;
  done: number;
  base: number | null;
  band: { low: number; high: number } | null;
  /** The value at the right end, shared by the rows of a section so that they compare. */
  max: number;
  rough?: boolean;
  width?: number;
}

/** Planned hollow, done solid, baseline a tick, the allowed band a pale strip. */
export function DoseBar({ planned, done, base, band, max, rough = false, width = 160 }: Props) {
  const x = (value: number) => (Math.min(value, max) / (max || 1)) * (width - 2) + 1;
  return (
    <svg viewBox={`0 0 ${width} 20`} width={width} height="20" aria-hidden="true" className="block">
      {band && (
        <rect
          x={x(band.low)}
          y="0"
          width={Math.max(0, x(band.high) - x(band.low))}
          height="20"
          fill="var(--band)"
        />
      )}
      <path d={`M1 10H${width - 1}`} stroke="var(--hair)" />
      {planned > 0 && (
        <rect
          x="1"
          y="4.5"
          width={Math.max(1, x(planned) - 1)}
          height="11"
          fill="none"
          stroke="var(--ink)"
        />
      )}
      {done > 0 && (
        <rect
          x="1"
          y="7"
          width={Math.max(1, x(done) - 1)}
          height="6"
          fill={fill(rough)}
          stroke="var(--ink)"
          strokeWidth={rough ? 0.75 : 0}
        />
      )}
      {base !== null && base > 0 && (
        <path d={`M${x(base)} 1V19`} stroke="var(--ink)" strokeWidth="1.5" />
      )}
    </svg>
  );
}
