import { Suspense, lazy } from "react";
import type { SeasonLine, SeasonWeek } from "@/api/season";
import { type WeekPlace } from "@/api/place";
import { BandMark } from "@/marks/BandMark";
import { height, range, reading, told } from "./lines";

// Axes and scales come with a library as large as the rest: when a row is opened.
const Plot = lazy(() => import("./Plot").then((found) => ({ default: found.Plot })));

interface Props {
  line: SeasonLine;
  weeks: SeasonWeek[];
  place: WeekPlace;
  open: boolean;
  toggle: () => void;
}

/** A figure over the weeks, each value as a mark in its band; it opens to its plot. */
export function LineRow({ line, weeks, place, open, toggle }: Props) {
  const span = range(line);
  const last = line.values.length - 1;
  return (
    <>
      <tr className="border-b border-hair hover:bg-band/40">
        <th scope="row" className="season-name text-left font-normal">
          <button
            type="button"
            data-line
            aria-expanded={open}
            className={`flex min-h-6 w-full items-baseline text-left ${open ? "font-semibold" : ""}`}
            title={line.label}
            onClick={toggle}
          >
            <span aria-hidden="true" className="w-3.5 shrink-0 text-ink-2">
              {open ? "▾" : "▸"}
            </span>
            <span className="capital truncate">{line.label}</span>
          </button>
        </th>
        {weeks.map((week, at) => (
          <td key={week.week} className={`p-0 ${week.gap ? "season-gap" : ""}`}>
            {(line.values[at] !== null || line.one_sided?.[at]) && (
              <BandMark
                standing={line.standings[at] ?? "none"}
                height={height(line, at, span)}
                rough={line.rough?.[at] ?? false}
                banded={(line.lows?.[at] ?? line.highs?.[at] ?? null) !== null}
                label={reading(line, weeks, at)}
              />
            )}
          </td>
        ))}
        <td className={`figure pl-2 text-sm ${line.rough?.[last] ? "italic" : ""}`}>
          {line.one_sided?.[last] ? "one side" : told(line, line.values[last])}
        </td>
      </tr>
      {open && (
        <tr className="border-b border-rule">
          <td colSpan={weeks.length + 2} className="p-0">
            <Suspense fallback={<p className="p-4 text-ink-2">Loading the line…</p>}>
              <Plot line={line} weeks={weeks} place={place} />
            </Suspense>
          </td>
        </tr>
      )}
    </>
  );
}
