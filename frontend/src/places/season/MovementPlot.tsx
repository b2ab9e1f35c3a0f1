import { Line, ReferenceLine } from "recharts";
import { Link } from "react-router";
import { type WeekPlace } from "@/api/place";
import type { Schemas } from "@/api/client";
import { useGoals } from "@/api/goals";
import { type SeasonLine, type SeasonWeek, useMovementLine } from "@/api/season";
import { Heads } from "@/frame/Heads";
import { weekPath } from "@/frame/places";
import { date, day, goalText, shownBy, weight } from "@/words";
import { TimeChart } from "./TimeChart";
import { middle, noon, shaded } from "./frame";

type Data = Schemas["MovementLineOut"];
type Goal = Schemas["GoalOut"];

interface Props {
  line: SeasonLine;
  weeks: SeasonWeek[];
  place: WeekPlace;
  table: boolean;
}

/** A movement's own line: every top set, what it lets expect of a single, where it stood still. */
export function MovementPlot({ line, weeks, place, table }: Props) {
  const found = useMovementLine(place, weeks.length, line.subject);
  const goals = useGoals(place.athlete);
  if (found.error)
    return (
      <p role="alert" className="px-4 py-2 text-high">
        {found.error.message}
      </p>
    );
  if (!found.data) return <p className="px-4 py-2 text-ink-2">Loading the top sets…</p>;
  const { stalled, ready } = found.data;
  const own = goals.data?.goals.filter((goal) => goal.movement === line.subject) ?? [];
  return (
    <>
      {(stalled.length > 0 || ready.length > 0) && (
        <p className="px-4 pb-1 text-sm">
          {stalled.length > 0 && <>Has not moved by {weeksTold(stalled)}. </>}
          {ready.length > 0 && <>Top of its range reached in {weeksTold(ready)}.</>}
        </p>
      )}
      {own.map((goal) => (
        <p key={goal.id} className="px-4 pb-1 text-sm">
          Goal: {goalText(goal)} by {date(goal.by)}, <strong>{goal.verdict}</strong>.{" "}
          {goal.sentence}
        </p>
      ))}
      {table ? (
        <Table data={found.data} place={place} />
      ) : (
        <Drawing data={found.data} weeks={weeks} goals={own} />
      )}
    </>
  );
}

const weeksTold = (weeks: string[]) =>
  `${weeks.length > 1 ? "weeks" : "week"} ${weeks.map((week) => Number(week.slice(6))).join(", ")}`;

interface DrawingProps {
  data: Data;
  weeks: SeasonWeek[];
  goals: Goal[];
}

function Drawing({ data, weeks, goals }: DrawingProps) {
  const loaded = data.tops.some((top) => top.load_kg > 0 || top.maximum_kg !== null);
  const points = data.tops.map((top) => ({
    t: noon(top.date),
    top,
    value: loaded ? top.load_kg / shownBy("load_kg") : (top.reps ?? top.seconds),
    maximum: top.maximum_kg === null ? null : top.maximum_kg / shownBy("load_kg"),
  }));
  return (
    <TimeChart
      points={points}
      weeks={weeks}
      title={`${data.name}, top sets; arrow keys go from session to session`}
      reading={({ top }) => (
        <>
          <p className="font-semibold">
            {day(top.date)}: {top.text}
          </p>
          {top.maximum_kg !== null && (
            <p className="italic">estimated maximum {estimated(top.maximum_kg)}</p>
          )}
        </>
      )}
    >
      {weeks
        .filter((one) => data.stalled.includes(one.week))
        .map((one) => shaded(one, "url(#hatch)", 0.18))}
      {weeks
        .filter((one) => data.ready.includes(one.week))
        .map((one) => (
          <ReferenceLine
            key={one.week}
            x={middle(one)}
            stroke="var(--note)"
            strokeDasharray="1 3"
            label={{ value: "ready", position: "insideTop", fill: "var(--note)", fontSize: 12 }}
          />
        ))}
      {goals
        .filter((goal) => (goal.kind === "load") === loaded)
        .map((goal) => (
          <ReferenceLine
            key={goal.id}
            y={goal.kind === "load" ? goal.target / shownBy("load_kg") : goal.target}
            stroke="var(--ink)"
            strokeDasharray="6 2"
            ifOverflow="extendDomain"
            label={{
              value: `goal ${goalText(goal)}`,
              position: "insideTopLeft",
              fill: "var(--ink)",
              fontSize: 12,
            }}
          />
        ))}
      <Line
        dataKey="maximum"
        stroke="var(--ink-2)"
        strokeDasharray="4 3"
        dot={{ r: 2.5, fill: "url(#hatch)", stroke: "var(--ink-2)" }}
        isAnimationActive={false}
        connectNulls
      />
      <Line
        dataKey="value"
        stroke="var(--ink)"
        strokeWidth={1.5}
        dot={{ r: 3.5, fill: "var(--ink)" }}
        activeDot={{ r: 5, fill: "var(--ink)" }}
        isAnimationActive={false}
      />
    </TimeChart>
  );
}

/** An estimate has no more digits than it is worth: halves of the unit that is shown. */
function estimated(kg: number): string {
  const unit = shownBy("load_kg");
  return weight((Math.round((kg / unit) * 2) / 2) * unit);
}

function Table({ data, place }: { data: Data; place: WeekPlace }) {
  return (
    <table className="mx-4 mb-2 text-sm">
      <thead>
        <tr className="border-b border-rule text-left text-ink-2 italic">
          <Heads
            heads={["Day", "top set", { says: "estimated maximum", figure: true }]}
            className="px-3"
          />
        </tr>
      </thead>
      <tbody>
        {[...data.tops].reverse().map((top, at) => (
          <tr key={at} className="border-b border-hair">
            <th scope="row" className="px-3 text-left font-normal whitespace-nowrap">
              <Link className="trail-link" to={weekPath(place.athlete, top.week, "log")}>
                {day(top.date)}
              </Link>
            </th>
            <td className="px-3">{top.text}</td>
            <td className="figure px-3 italic">
              {top.maximum_kg === null ? "–" : estimated(top.maximum_kg)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
