import { Area, type DotItemDotProps, Line, Scatter } from "recharts";
import type { SeasonLine, SeasonWeek } from "@/api/season";
import { shownBy } from "@/words";
import { TimeChart } from "./TimeChart";
import { middle } from "./frame";
import { allowed, reading, told } from "./lines";

interface Point {
  t: number;
  at: number;
  value: number | null;
  planned: number | null;
  base: number | null;
  band: [number, number] | null;
}

/** The dot of a week: solid for what was done, hatched where it is estimated. */
function Dot({ cx, cy, rough }: { cx?: number; cy?: number; rough: boolean }) {
  if (cx === undefined || cy === undefined) return null;
  return (
    <circle
      cx={cx}
      cy={cy}
      r={3.5}
      fill={rough ? "url(#hatch)" : "var(--ink)"}
      stroke="var(--ink)"
    />
  );
}

function points(line: SeasonLine, weeks: SeasonWeek[]): Point[] {
  const shown = (value: number | null | undefined) =>
    value === null || value === undefined ? null : value / shownBy(line.measure);
  const most = Math.max(0, ...line.values.map((value) => shown(value) ?? 0));
  return weeks.map((week, at) => {
    const [low, high] = [shown(line.lows?.[at]), shown(line.highs?.[at])];
    return {
      t: middle(week),
      at,
      value: shown(line.values[at]),
      planned: shown(line.planned?.[at]),
      base: shown(line.bases?.[at]),
      band: low === null && high === null ? null : [low ?? 0, high ?? most],
    };
  });
}

/** A figure over the weeks: value, plan, baseline, and the band it should stand in. */
export function LinePlot({ line, weeks }: { line: SeasonLine; weeks: SeasonWeek[] }) {
  const data = points(line, weeks);
  return (
    <TimeChart
      points={data}
      weeks={weeks}
      title={`${line.label}, ${weeks.length} weeks; arrow keys go from week to week`}
      reading={({ at }) => <Reading line={line} weeks={weeks} at={at} />}
    >
      <Area
        dataKey="band"
        fill="var(--band)"
        stroke="none"
        isAnimationActive={false}
        activeDot={false}
        connectNulls={false}
      />
      <Line
        dataKey="base"
        stroke="var(--ink-2)"
        strokeDasharray="4 3"
        dot={false}
        activeDot={false}
        isAnimationActive={false}
      />
      <Scatter
        dataKey="planned"
        fill="var(--sheet)"
        stroke="var(--ink-2)"
        isAnimationActive={false}
      />
      <Line
        dataKey="value"
        stroke="var(--ink)"
        strokeWidth={1.5}
        dot={({ cx, cy, payload, key }: DotItemDotProps) => (
          <Dot
            key={key}
            cx={cx}
            cy={(payload as Point).value === null ? undefined : cy}
            rough={line.rough?.[(payload as Point).at] ?? false}
          />
        )}
        activeDot={{ r: 5, fill: "var(--ink)" }}
        connectNulls={false}
        isAnimationActive={false}
      />
    </TimeChart>
  );
}

/** A week of the plot in words. */
function Reading({ line, weeks, at }: { line: SeasonLine; weeks: SeasonWeek[]; at: number }) {
  const band = allowed(line, at);
  return (
    <>
      <p className="font-semibold">{reading(line, weeks, at)}</p>
      {line.planned?.[at] != null && <p>planned {told(line, line.planned[at])}</p>}
      {line.bases?.[at] != null && <p>baseline {told(line, line.bases[at])}</p>}
      {band && <p>allowed {band}</p>}
    </>
  );
}
