import { type RefObject, type KeyboardEvent, useEffect, useRef } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { onDevice } from "@/api/remember";
import { type Season as Data, useSeason } from "@/api/season";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { weekPath } from "@/frame/places";
import { BandMark } from "@/marks/BandMark";
import { weekName } from "@/words";
import { LineRow } from "./LineRow";
import { TimeLine } from "./TimeLine";
import { KINDS, lineKey } from "./lines";

const LENGTH = "dialback.season";
const USUAL = 16;

/** Up and down go from row to row, Home and End to the first and the last. */
function walkRows(event: KeyboardEvent<HTMLElement>): void {
  const rows = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-line]")];
  const here = rows.indexOf(event.target as HTMLElement);
  if (here < 0) return;
  const to = {
    ArrowDown: here + 1,
    ArrowUp: here - 1,
    Home: 0,
    End: rows.length - 1,
  }[event.key];
  if (to === undefined) return;
  event.preventDefault();
  rows[to]?.focus();
}

/** How wide a week is, in rem: on a small screen wide enough for a thumb. */
const weekWidth = () => (window.innerWidth < 1024 ? 1.9 : 0.95);

/** An athlete's long line: weeks across, figures down, each value as a mark in its band. */
export function Season() {
  const place = useWeekPlace();
  const [search, setSearch] = useSearchParams();
  const kept = Number(onDevice.get(LENGTH) ?? USUAL);
  const weeks = Number(search.get("weeks") ?? kept) || USUAL;
  const season = useSeason(place, weeks);
  const go = useNavigate();
  useEffect(() => onDevice.set(LENGTH, String(weeks)), [weeks]);
  const open = search.getAll("line");
  const change = (name: string, values: string[]) => {
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        next.delete(name);
        for (const value of values) next.append(name, value);
        return next;
      },
      { replace: true },
    );
  };
  if (season.error) return <Failure error={season.error} />;
  if (!season.data) return <p className="p-6 text-ink-2">Loading the season…</p>;
  return (
    <main className="flex min-h-0 flex-1 flex-col bg-sheet print-open">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 px-6 pt-3 pb-2 max-md:px-4">
        <h2 className="text-lg font-semibold">
          {season.data.weeks.length} weeks, up to {weekName(place.week).toLowerCase()}
        </h2>
        <div role="group" aria-label="Weeks" className="no-print flex gap-3 text-sm">
          {season.data.lengths.map((length) => (
            <button
              key={length}
              type="button"
              aria-pressed={length === weeks}
              className={`border-b-2 ${length === weeks ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`}
              onClick={() => change("weeks", [String(length)])}
            >
              {length} weeks
            </button>
          ))}
        </div>
        <Legend />
      </div>
      <Sheet
        key={`${place.athlete} ${weeks}`}
        data={season.data}
        open={open}
        openLines={(lines) => change("line", lines)}
        goTo={(week) => go(weekPath(place.athlete, week, "sheet"))}
      />
    </main>
  );
}

function Legend() {
  const marks = [
    ["within", "in its band"],
    ["above", "above"],
    ["below", "below"],
  ] as const;
  return (
    <p className="ml-auto flex flex-wrap items-center gap-x-4 text-xs text-ink-2 max-md:ml-0">
      {marks.map(([standing, says]) => (
        <span key={standing} className="inline-flex items-center gap-1">
          <span className="inline-block w-4" aria-hidden="true">
            <BandMark standing={standing} height={0.5} rough={false} banded label="" />
          </span>
          {says}
        </span>
      ))}
      <span className="inline-flex items-center gap-1">
        <span className="inline-block w-4" aria-hidden="true">
          <BandMark standing="none" height={0.5} rough banded={false} label="" />
        </span>
        <i>estimated in part</i>
      </span>
    </p>
  );
}

interface SheetProps {
  data: Data;
  open: string[];
  openLines: (lines: string[]) => void;
  goTo: (week: string) => void;
}

function Sheet({ data, open, openLines, goTo }: SheetProps) {
  const place = useWeekPlace();
  const scroll = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // What is narrower than the weeks shows the latest of them.
    if (scroll.current) scroll.current.scrollLeft = scroll.current.scrollWidth;
  }, []);
  const trained = data.weeks.some((week) => week.trained);
  return (
    <>
      <Turn scroll={scroll} />
      <div ref={scroll} className="min-h-0 flex-1 overflow-auto pb-8">
        <table
          className="season w-full"
          style={{ minWidth: `${19 + data.weeks.length * weekWidth()}rem` }}
        >
          <caption className="sr-only">
            Weeks across, figures down; a row opens to its plot.
          </caption>
          <TimeLine weeks={data.weeks} go={goTo} />
          {/* Arrow keys only move the focus between what has it anyway. */}
          {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
          <tbody onKeyDown={walkRows}>
            {KINDS.map(({ kind, title }) => {
              const lines = data.lines.filter((line) => line.kind === kind);
              if (lines.length === 0 || !trained) return null;
              return [
                <tr key={kind}>
                  <th
                    scope="rowgroup"
                    colSpan={data.weeks.length + 2}
                    className="season-group text-left text-sm font-normal text-ink-2 italic"
                  >
                    <span className="sticky left-0 inline-block px-6 max-md:px-4">{title}</span>
                  </th>
                </tr>,
                ...lines.map((line) => (
                  <LineRow
                    key={lineKey(line)}
                    line={line}
                    weeks={data.weeks}
                    place={place}
                    open={open.includes(lineKey(line))}
                    toggle={() =>
                      openLines(
                        open.includes(lineKey(line))
                          ? open.filter((one) => one !== lineKey(line))
                          : [...open, lineKey(line)],
                      )
                    }
                  />
                )),
              ];
            })}
          </tbody>
        </table>
        {!trained && (
          <p className="py-6 max-md:px-4">
            Nothing was logged in these weeks. Log a session, or go to a later week.
          </p>
        )}
      </div>
    </>
  );
}

/** On a phone a few of the weeks are seen: that there are more, and the ways to them. */
function Turn({ scroll }: { scroll: RefObject<HTMLDivElement | null> }) {
  const by = (share: number) => {
    const sheet = scroll.current;
    sheet?.scrollBy({ left: share * sheet.clientWidth, behavior: "smooth" });
  };
  return (
    <p className="no-print flex gap-3 px-4 pb-2 text-sm md:hidden">
      <button type="button" className="key-button" onClick={() => by(-HALF)}>
        Earlier weeks
      </button>
      <button type="button" className="key-button" onClick={() => by(HALF)}>
        Later weeks
      </button>
    </p>
  );
}

/** By half of what is seen, for the names stand in the other half. */
const HALF = 0.5;
