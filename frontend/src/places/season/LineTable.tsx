import { Link } from "react-router";
import { type WeekPlace } from "@/api/place";
import type { SeasonLine, SeasonWeek } from "@/api/season";
import { Heads } from "@/frame/Heads";
import { weekPath } from "@/frame/places";
import { date, weekName } from "@/words";
import { allowed, told } from "./lines";

interface Props {
  line: SeasonLine;
  weeks: SeasonWeek[];
  place: WeekPlace;
}

/** The weeks of a line as a table, the newest first; a value leads to the sets behind it. */
export function LineTable({ line, weeks, place }: Props) {
  const order = weeks.map((_, at) => at).reverse();
  return (
    <table className="mx-4 mb-2 text-sm">
      <thead>
        <tr className="border-b border-rule text-ink-2 italic">
          <Heads
            heads={[
              "Week",
              "from",
              ...["done", "planned", "baseline", "allowed"].map((says) => ({ says, figure: true })),
            ]}
            className="px-3"
          />
        </tr>
      </thead>
      <tbody>
        {order.map((at) => {
          const week = weeks[at];
          if (!week) return null;
          const sheet = weekPath(place.athlete, week.week, "sheet");
          const value = line.one_sided?.[at] ? "one side" : told(line, line.values[at]);
          return (
            <tr key={week.week} className="border-b border-hair">
              <th scope="row" className="px-3 text-left font-normal">
                {weekName(week.week)}
              </th>
              <td className="px-3 text-ink-2">{date(week.monday)}</td>
              <td className={`figure px-3 ${line.rough?.[at] ? "italic" : ""}`}>
                {line.figure && line.values[at] !== null ? (
                  <Link
                    className="trail-link"
                    to={`${sheet}?trail=${encodeURIComponent(line.figure)}`}
                  >
                    {value}
                  </Link>
                ) : (
                  value
                )}
                {line.standings[at] === "above" && " ↑"}
                {line.standings[at] === "below" && " ↓"}
              </td>
              <td className="figure px-3">{told(line, line.planned?.[at])}</td>
              <td className="figure px-3">{told(line, line.bases?.[at])}</td>
              <td className="figure px-3">{allowed(line, at) || "–"}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
