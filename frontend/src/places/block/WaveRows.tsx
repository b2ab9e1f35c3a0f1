import { useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import { Tick } from "@/frame/Tick";
import { LevelMark } from "@/marks/LevelMark";
import { WHOLE_WEEK, count, measureTitle, number, weekName } from "@/words";
import type { Wave } from "./useWave";
import { type FindingRow, findingRows, shapeWords } from "./wave";

type BlockWeek = Schemas["BlockWeek"];

interface Props {
  weeks: BlockWeek[];
  wave: Wave;
}

/** Below the weeks: what is proposed for each, and every finding over all of them. */
export function WaveRows({ weeks, wave }: Props) {
  const rows = findingRows(weeks, wave.weeks);
  const first = useRef<HTMLTableRowElement>(null);
  // Whoever asks for a proposal wants to see it come.
  useEffect(() => {
    void first.current?.scrollIntoView({ block: "center" });
  }, []);
  return (
    <>
      <tr ref={first} className="border-t-2 border-ink">
        <th scope="row" className="py-1 pr-2 text-left align-top text-sm font-semibold">
          proposed
        </th>
        {weeks.map((one) => (
          <td key={one.week} className="px-2 py-1 align-top text-sm">
            {!one.over && <Proposed week={one} wave={wave} />}
          </td>
        ))}
      </tr>
      {rows.map((row) => (
        <Row key={row.key} row={row} weeks={weeks} />
      ))}
    </>
  );
}

function Proposed({ week, wave }: { week: BlockWeek; wave: Wave }) {
  const found = wave.weeks.get(week.week);
  return (
    <>
      <span className="flex items-baseline gap-2">
        {found ? (
          <>
            <span className="figure">
              {found.sets === found.planned
                ? number(found.sets, 1)
                : `${number(found.planned, 1)} → ${number(found.sets, 1)}`}
            </span>{" "}
            sets
          </>
        ) : (
          <span className="text-ink-2 italic">
            {wave.asking === week.week ? "calculating…" : "–"}
          </span>
        )}
      </span>
      {found && (
        <>
          <span className="block text-ink-2 italic">{shapeWords(found)}</span>
          {found.carried > 0 && (
            <span className="block text-ink-2">{count(found.carried, "line")} carried over</span>
          )}
          {found.changes.length === 0 ? (
            <span className="block text-ink-2">
              {found.carried > 0 ? "nothing more changes" : "no line changes"}
            </span>
          ) : (
            <details>
              <summary className="text-ink-2">
                {count(found.changes.length, "line")}{" "}
                {found.changes.length === 1 ? "changes" : "change"}
              </summary>
              <ul className="text-xs">
                {found.changes.map((one) => (
                  <li key={one} className="border-t border-hair py-0.5">
                    {one}
                  </li>
                ))}
              </ul>
            </details>
          )}
          {!found.optimal && (
            <span className="block text-xs text-ink-2">the best found in the time</span>
          )}
        </>
      )}
      <Tick
        label="Lighter"
        name={`${weekName(week.week)} lighter`}
        value={wave.isLighter(week.week)}
        put={(lighter) => wave.setLighter(week.week, lighter)}
      />
    </>
  );
}

const SAYS = { open: "open", cleared: "clears", stays: "stays" };

/** A finding over the weeks: in which of them it is, and in which it clears. */
function Row({ row, weeks }: { row: FindingRow; weeks: BlockWeek[] }) {
  return (
    <tr className="border-t border-hair">
      <th scope="row" className="py-0.5 pr-2 text-left align-top text-xs font-normal">
        {row.title.toLowerCase()},{" "}
        <span className="font-semibold">
          {row.subject === WHOLE_WEEK ? `the week’s ${measureTitle(row.measure)}` : row.label}
        </span>
      </th>
      {weeks.map((week, at) => {
        const mark = row.marks[at];
        return (
          <td key={week.week} className="px-2 py-0.5 align-top text-xs" title={mark?.says}>
            {mark && (
              <span className="flex items-center gap-1.5">
                <LevelMark level={mark.level} struck={mark.state === "cleared"} />
                <span className={mark.state === "cleared" ? "text-ink-2" : ""}>
                  {SAYS[mark.state]}
                </span>
              </span>
            )}
            {mark?.state === "stays" && (
              <span className="line-clamp-4 text-ink-2">{mark.says}</span>
            )}
          </td>
        );
      })}
    </tr>
  );
}
