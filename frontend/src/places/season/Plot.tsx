import { useId, useState } from "react";
import { type WeekPlace } from "@/api/place";
import type { SeasonLine, SeasonWeek } from "@/api/season";
import { LinePlot } from "./LinePlot";
import { LineTable } from "./LineTable";
import { MovementPlot } from "./MovementPlot";

interface Props {
  line: SeasonLine;
  weeks: SeasonWeek[];
  place: WeekPlace;
}

/** An opened row: its plot, and the same as a table for those who read rather than look. */
export function Plot({ line, weeks, place }: Props) {
  const [table, setTable] = useState(false);
  const id = useId();
  return (
    <section aria-label={`${line.label}, week by week`} className="pb-2">
      <div className="flex justify-end gap-6 pt-1 pr-6 pl-2 max-md:pr-4 text-sm">
        {!table && <Key movement={line.kind === "movement"} line={line} />}
        <button
          type="button"
          className="trail-link"
          aria-pressed={table}
          aria-controls={id}
          onClick={() => setTable(!table)}
        >
          {table ? "As a plot" : "As a table"}
        </button>
      </div>
      <div id={id}>
        {line.kind === "movement" ? (
          <MovementPlot line={line} weeks={weeks} place={place} table={table} />
        ) : table ? (
          <LineTable line={line} weeks={weeks} place={place} />
        ) : (
          <LinePlot line={line} weeks={weeks} />
        )}
      </div>
    </section>
  );
}

/** What the drawing is made of, as far as this line has it. */
function Key({ movement, line }: { movement: boolean; line: SeasonLine }) {
  const dashed = <span className="inline-block w-6 border-t border-dashed border-ink-2" />;
  const parts: [string, React.ReactNode, boolean][] = movement
    ? [
        ["top set of a session", <span key="dot">●</span>, true],
        ["estimated maximum", dashed, true],
      ]
    : [
        ["done", <span key="dot">●</span>, true],
        ["planned", <span key="ring">○</span>, line.planned !== null],
        ["baseline", dashed, line.bases !== null],
        [
          "allowed",
          <span key="band" className="inline-block h-2.5 w-5 bg-band" />,
          line.lows !== null || line.highs !== null,
        ],
      ];
  return (
    <p className="flex flex-wrap justify-end gap-x-4 text-ink-2">
      {parts
        .filter(([, , there]) => there)
        .map(([says, mark]) => (
          <span key={says} className="inline-flex items-center gap-1.5">
            <span aria-hidden="true">{mark}</span>
            {says}
          </span>
        ))}
    </p>
  );
}
