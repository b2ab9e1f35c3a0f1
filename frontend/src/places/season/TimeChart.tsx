import type { ReactElement, ReactNode } from "react";
import { ComposedChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import type { SeasonWeek } from "@/api/season";
import { TICK, background, domain, margins, ticks, weekTick } from "./frame";

interface Props<Point> {
  points: Point[];
  weeks: SeasonWeek[];
  title: string;
  /** A point in words, where one points at it or goes by the arrow keys. */
  reading: (point: Point) => ReactElement;
  children: ReactNode;
}

/** A plot below the weeks of the table: the same weeks, the same widths; `t` is a point's time. */
export function TimeChart<Point extends { t: number }>({
  points,
  weeks,
  title,
  reading,
  children,
}: Props<Point>) {
  const { names, last } = margins();
  return (
    <ResponsiveContainer width="100%" height={210}>
      <ComposedChart
        data={points}
        margin={{ top: 8, right: last, bottom: 4, left: 0 }}
        accessibilityLayer
        title={title}
      >
        <XAxis
          dataKey="t"
          type="number"
          domain={domain(weeks)}
          ticks={ticks(weeks)}
          tickFormatter={weekTick(weeks)}
          tick={TICK}
          stroke="var(--rule)"
        />
        <YAxis width={names} tick={TICK} stroke="var(--rule)" domain={["auto", "auto"]} />
        {background(weeks)}
        {children}
        <Tooltip
          isAnimationActive={false}
          cursor={{ stroke: "var(--rule)" }}
          content={({ payload }) => {
            const point = payload?.[0]?.payload as Point | undefined;
            return (
              point && (
                <div className="border border-rule bg-sheet px-2 py-1 text-sm">
                  {reading(point)}
                </div>
              )
            );
          }}
        />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
