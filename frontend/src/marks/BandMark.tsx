import type { SeasonLine } from "@/api/season";

interface Props {
  standing: SeasonLine["standings"][number];
  /** From 0 at the foot to 1 at the head. */
  height: number;
  rough: boolean;
  banded: boolean;
  label: string;
}

const TALL = 20;

/** A value in its band: a disc within, an arrow head where it is out of it; hatched if estimated. */
export function BandMark({ standing, height, rough, banded, label }: Props) {
  const y = TALL - 3 - height * (TALL - 6);
  const out = standing === "above" || standing === "below";
  const colour = out ? "var(--caution)" : "var(--ink)";
  return (
    <svg
      viewBox={`0 0 12 ${TALL}`}
      className="block h-5 w-full"
      preserveAspectRatio="xMidYMid meet"
      role="img"
      aria-label={label}
    >
      <title>{label}</title>
      {banded && <rect x="-100" y={TALL / 3} width="212" height={TALL / 3} fill="var(--band)" />}
      {out ? (
        <path
          d={standing === "above" ? `M2.5 ${y + 3}h7L6 ${y - 3}z` : `M2.5 ${y - 3}h7L6 ${y + 3}z`}
          fill={rough ? "url(#hatch)" : colour}
          stroke={colour}
          strokeWidth="0.8"
        />
      ) : (
        <circle
          cx="6"
          cy={y}
          r="2.4"
          fill={rough ? "url(#hatch)" : colour}
          stroke={colour}
          strokeWidth="0.6"
        />
      )}
    </svg>
  );
}
