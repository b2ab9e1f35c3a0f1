import { ReferenceArea, ReferenceLine } from "recharts";
import type { SeasonWeek } from "@/api/season";

const DAY_MS = 86_400_000;
export const noon = (iso: string): number => new Date(`${iso}T12:00:00`).getTime();

/** A week's own place on the axis: its middle. */
export const middle = (week: SeasonWeek): number => noon(week.monday) + 3 * DAY_MS;

/** From a week's first midnight to its last. */
const extent = (monday: string): [number, number] => [
  noon(monday) - DAY_MS / 2,
  noon(monday) + 6.5 * DAY_MS,
];

/** From the first Monday to the last Sunday: the weeks of the table above. */
export const domain = (weeks: SeasonWeek[]): [number, number] => [
  extent(weeks[0]?.monday ?? "")[0],
  extent(weeks.at(-1)?.monday ?? "")[1],
];

/** A week as an area behind a plot. */
export function shaded(week: SeasonWeek, fill: string, fillOpacity: number) {
  const [x1, x2] = extent(week.monday);
  return (
    <ReferenceArea
      key={`${fill} ${week.week}`}
      x1={x1}
      x2={x2}
      fill={fill}
      fillOpacity={fillOpacity}
      stroke="none"
    />
  );
}

/** Some of the weeks to write below the axis: not closer than a word is wide. */
export function ticks(weeks: SeasonWeek[]): number[] {
  const step = weeks.length > 26 ? 4 : weeks.length > 16 ? 2 : 1;
  return weeks.filter((_, at) => (weeks.length - 1 - at) % step === 0).map(middle);
}

export const TICK = { fontSize: 12, fill: "var(--ink-2)" };

/** As wide as the names and the last column of the table above, so that weeks stand below weeks. */
export const margins = () =>
  window.innerWidth < 768 ? { names: 128, last: 80 } : { names: 256, last: 88 };

/** The number of the week that a tick stands for. */
export const weekTick = (weeks: SeasonWeek[]) => (t: number) => {
  const week = weeks.find((one) => middle(one) === t)?.week;
  return week ? String(Number(week.slice(6))) : "";
};

/** Weeks off and the beginnings of blocks, behind a plot. */
export function background(weeks: SeasonWeek[]) {
  return [
    ...weeks.filter((week) => week.gap).map((week) => shaded(week, "var(--hair)", 0.6)),
    ...weeks
      .filter((week) => week.block)
      .map((week) => (
        <ReferenceLine
          key={`block ${week.week}`}
          x={extent(week.monday)[0]}
          stroke="var(--rule)"
          strokeDasharray="2 3"
        />
      )),
  ];
}
