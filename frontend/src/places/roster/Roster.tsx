import { useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { useMay } from "@/api/me";
import { useRoster } from "@/api/roster";
import { Damaged } from "@/frame/Damaged";
import { Failure } from "@/frame/Failure";
import { useKeys } from "@/frame/keys";
import { PrintButton } from "@/frame/PrintButton";
import { May } from "@/frame/May";
import { SquadSelect } from "@/frame/SquadSelect";
import { weekPath } from "@/frame/places";
import { AddPeople } from "./AddPeople";
import { FirstStart } from "./FirstStart";
import { FILTERS, type Filter, useFilter } from "./useFilter";
import { LevelMark } from "@/marks/LevelMark";
import { WeekColumns } from "@/marks/WeekColumns";
import { count, day, number, share, span, weekName } from "@/words";

type Row = Schemas["RosterRow"];
type Waiting = Schemas["Waiting"];

const sheetOf = (row: Row) => weekPath(row.id, row.week, "sheet");

/** All athletes, one line each, those who need the coach first on top. */
export function Roster() {
  const roster = useRoster();
  const filter = useFilter();
  const [adding, setAdding] = useState(false);
  const data = roster.data;
  const rows = useMemo(() => filter.keeps(data), [filter, data]);
  const waiting = data?.waiting ?? [];
  if (roster.error) return <Failure error={roster.error} />;
  if (!data) return <p className="p-6 text-ink-2">Counting the week…</p>;
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pb-8 print-open max-md:px-4">
      <Head
        data={data}
        filter={filter}
        first={rows[0]}
        add={() => setAdding(true)}
        shown={rows.map((one) => one.id)}
      />
      <Damaged lines={data.damaged} />
      <AddPeople open={adding} close={() => setAdding(false)} />
      {waiting.length > 0 && (
        <p role="status" className="pb-2 text-sm text-ink-2">
          Counting the week: {data.athletes.length} of {data.athletes.length + waiting.length}{" "}
          athletes so far.
        </p>
      )}
      {data.athletes.length + waiting.length === 0 ? (
        <Nobody add={() => setAdding(true)} />
      ) : (
        <table className="w-full">
          <Columns />
          <tbody>
            {rows.map((row) => (
              <Athlete key={row.id} row={row} week={data.week} />
            ))}
            {filter.isOff && waiting.map((row) => <Uncounted key={row.id} row={row} />)}
          </tbody>
        </table>
      )}
      {rows.length === 0 && waiting.length === 0 && data.athletes.length > 0 && (
        <p className="py-6 text-ink-2">
          Nobody matches.{" "}
          <button type="button" className="trail-link" onClick={filter.clear}>
            Show all
          </button>
        </p>
      )}
    </main>
  );
}

/** An empty roster: the first steps, for whoever may take them. */
function Nobody({ add }: { add: () => void }) {
  return useMay("plan") ? (
    <FirstStart add={add} />
  ) : (
    <p className="py-6 text-ink-2">
      Nobody is on the roster yet: the coach adds the first athletes.
    </p>
  );
}

/** A row whose figures are still to come: better none than last week's. */
function Uncounted({ row }: { row: Waiting }) {
  return (
    <tr className="border-b border-hair align-middle text-ink-2">
      <td className="py-2 pr-3 text-lg leading-tight font-semibold">{row.name}</td>
      <td colSpan={6} className="text-sm">
        <span className="italic">{row.note}</span> still to be counted
      </td>
    </tr>
  );
}

function Counts({ row }: { row: Row }) {
  if (row.counts.high + row.counts.caution + row.counts.note === 0)
    return (
      <span className="text-sm text-ink-2">
        {row.counts.accepted ? `none; ${row.counts.accepted} accepted` : "none"}
      </span>
    );
  return (
    // A slot for each level, so that a level stands in one column down the page.
    <span className="grid grid-cols-2 items-center">
      {(["high", "caution"] as const).map((level) => (
        <span key={level} className="flex items-center gap-1.5" title={level}>
          {row.counts[level] > 0 && (
            <>
              <LevelMark level={level} />
              <span className="font-semibold">{row.counts[level]}</span>
            </>
          )}
        </span>
      ))}
      {row.counts.note > 0 && (
        <span className="flex items-center gap-1.5" title="note">
          <LevelMark level="note" />
          <span className="font-semibold">{row.counts.note}</span>
        </span>
      )}
    </span>
  );
}

/** One athlete in a line: what happened, what it led to, and how much was done. */
function Athlete({ row, week }: { row: Row; week: string }) {
  const go = useNavigate();
  const may = useMay("log");
  const open = sheetOf(row);
  return (
    <tr
      onClick={() => go(open)}
      className="cursor-pointer border-b border-hair align-middle hover:bg-band/50"
    >
      <td className="py-2 pr-3">
        <Link
          to={open}
          onClick={(event) => event.stopPropagation()}
          className="text-lg leading-tight font-semibold hover:underline"
        >
          {row.name}
        </Link>
        {row.squad && <span className="block text-xs text-ink-2">{row.squad}</span>}
        {row.undecided && may && (
          <Link
            to={`${weekPath(row.id, row.undecided.week, "log")}?session=${row.undecided.session}`}
            onClick={(event) => event.stopPropagation()}
            className="trail-link block w-fit text-xs text-caution"
          >
            two versions of a log
          </Link>
        )}
        {row.unlogged > 0 && may && (
          <Link
            to={weekPath(row.id, row.week, "log")}
            onClick={(event) => event.stopPropagation()}
            className="trail-link flex min-h-6 w-fit items-center text-xs text-caution"
            title="Log it as planned, or say why it was missed"
          >
            {count(row.unlogged, "session")} not logged
          </Link>
        )}
        {row.last_log && (
          <span className="block text-xs text-caution">last log: {weekName(row.last_log)}</span>
        )}
      </td>
      <td className="pr-3">
        <Counts row={row} />
      </td>
      <td className="max-w-0 py-1 pr-5 text-sm">
        <span className="line-clamp-2 leading-snug">
          {row.first_kind === "open" && <span className="text-ink-2 italic">Nothing new. </span>}
          {row.first ?? "Nothing open."}
          {row.more > 0 && (
            <span className="whitespace-nowrap text-ink-2"> {count(row.more, "more line")}.</span>
          )}
        </span>
        <span className="line-clamp-1 text-ink-2 italic">{row.note}</span>
      </td>
      <td className="max-md:not-print:hidden">
        <WeekColumns
          columns={row.columns}
          column={10}
          label={`Sets planned and done, eight weeks; last ${number(row.columns.at(-1)?.done ?? 0, 1)} of ${number(row.columns.at(-1)?.planned ?? 0, 1)}`}
        />
      </td>
      <td className="figure max-md:not-print:hidden">{share(row.share_done)}</td>
      <td className="figure max-lg:not-print:hidden">
        {row.sessions_planned > 0
          ? `${row.sessions_done} of ${row.sessions_planned}`
          : row.sessions_done > 0
            ? `${row.sessions_done}, no plan`
            : "–"}
      </td>
      <td
        className={`figure text-sm max-md:not-print:hidden ${row.signed_week === week ? "" : "text-ink-2"}`}
      >
        {row.signed_week && row.signed_day ? (
          <span title={`Signed on ${day(row.signed_day)}`}>{weekName(row.signed_week)}</span>
        ) : (
          "never"
        )}
      </td>
    </tr>
  );
}

interface HeadProps {
  data: Schemas["Roster"];
  filter: Filter;
  first: Row | undefined;
  add: () => void;
  shown: number[];
}

/** The week to audit, and the ways to find somebody. */
function Head({ data, filter, first, add, shown }: HeadProps) {
  const find = useRef<HTMLInputElement>(null);
  const go = useNavigate();
  useKeys({ find: () => find.current?.focus() });
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 pt-4 pb-3">
      <h1 className="text-xl font-semibold">
        {weekName(data.week)}{" "}
        <span className="font-normal text-ink-2">to audit, {span(data.monday, data.sunday)}</span>
      </h1>
      <div
        role="group"
        aria-label="Show"
        className="no-print ml-auto flex flex-wrap gap-x-3.5 text-sm max-md:ml-0"
      >
        {FILTERS.map((one) => (
          <button
            key={one.name}
            type="button"
            aria-pressed={one.word === filter.show}
            onClick={() => filter.put({ show: one.word })}
            className={`min-h-6 border-b-2 ${one.word === filter.show ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`}
          >
            {one.name}
          </button>
        ))}
      </div>
      <SquadSelect
        people={data.athletes}
        value={filter.squad}
        put={(squad) => filter.put({ squad })}
        className="no-print py-0.5"
      />
      <input
        ref={find}
        type="search"
        value={filter.text}
        placeholder="Find  /"
        aria-label="Find an athlete"
        onChange={(event) => filter.type(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter" && first) go(sheetOf(first));
          if (event.key === "Escape") {
            filter.type("");
            event.currentTarget.blur();
          }
        }}
        className="field no-print w-32 text-sm"
      />
      <span className="flex gap-2">
        <PrintButton shown={shown} className="key-button text-sm whitespace-nowrap" />
        <May right="plan">
          <button
            type="button"
            className="key-button no-print text-sm whitespace-nowrap"
            onClick={add}
          >
            Add athletes
          </button>
        </May>
      </span>
    </div>
  );
}

function Columns() {
  return (
    <thead>
      <tr className="border-b border-rule text-left align-bottom text-sm text-ink-2 italic">
        <th className="w-48 pb-1 font-normal max-lg:w-40 max-md:w-28">Athlete</th>
        <th className="w-36 pb-1 font-normal max-lg:w-28 max-md:w-24">Open points</th>
        <th className="pb-1 font-normal">What is new</th>
        <th className="w-30 pb-1 font-normal max-lg:w-26 max-md:not-print:hidden">
          Sets, eight weeks
        </th>
        <th className="figure w-16 pb-1 font-normal max-md:not-print:hidden">Done</th>
        <th className="figure w-24 pb-1 font-normal max-lg:not-print:hidden">Sessions</th>
        <th className="figure w-28 pb-1 font-normal max-lg:w-22 max-md:not-print:hidden">Signed</th>
      </tr>
    </thead>
  );
}
