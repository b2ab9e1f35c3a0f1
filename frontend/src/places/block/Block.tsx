import { type RefObject, useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { useBlock } from "@/api/block";
import { useChange } from "@/api/changes";
import { useMay } from "@/api/me";
import { changes as past, useUndoable } from "@/api/journal";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { May } from "@/frame/May";
import { count, number, weekName, weekday } from "@/words";
import { BlockHead } from "./BlockHead";
import { ChangesDialog } from "./ChangesDialog";
import { Goals } from "./Goals";
import { LayForm } from "./LayForm";
import { WaveButton, WaveHead } from "./WaveHead";
import { WaveRows } from "./WaveRows";
import { WeekFoot } from "./WeekFoot";
import { type Cell, type Data, type Session, type Walk, useBlockWalk } from "./useBlockWalk";
import { type Held, useHeld } from "./useHeld";
import { useSeenWeeks } from "./useSeenWeeks";
import { useWave } from "./useWave";

/** Days down, weeks across: plans hollow, what was done solid, the four measures below. */
export function Block() {
  const place = useWeekPlace();
  const [params, setParams] = useSearchParams();
  const found = useBlock(place, Math.min(8, Math.max(3, Number(params.get("weeks") ?? 6) || 6)));
  const [showing, setShowing] = useState(false);
  const may = useMay("plan");
  const done = useUndoable(place.athlete);
  const last = done.data?.entries.find((one) => !one.undone);
  const back = useChange(async () => {
    if (last) await past.undo({ id: last.id });
  });
  const data = found.data;
  const { cell, at, date, here, walk, grid } = useBlockWalk(place, data);
  const seen = useSeenWeeks(data?.weeks.length ?? 0, cell.week);
  const wave = useWave(place.athlete, data, found.dataUpdatedAt);
  const [remarks, setRemarks] = useState<string[]>([]);
  const { held, change, keys } = useHeld(place, here, date, setRemarks);
  useKeys(may ? { ...keys, undo: () => back.mutate(undefined), propose: wave.toggle } : {});
  if (found.error) return <Failure error={found.error} />;
  if (!data) return <p className="p-6 text-ink-2">Loading the weeks…</p>;
  const ofWeek = data.sessions.filter((session) =>
    data.days.some((row) => row[cell.week] === session.date),
  );
  const weeks = data.weeks.slice(...seen);
  const ahead = data.weeks.filter((one) => !one.over);
  const error = change.error ?? back.error;
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-3 pb-8">
      <BlockHead
        place={place}
        week={data.weeks[cell.week]?.week ?? place.week}
        stored={data.stored}
        weeks={data.weeks.length}
        tell={setRemarks}
        show={(next) => setParams({ weeks: String(next) }, { replace: true })}
      />
      <May right="plan">
        <Steps
          held={held}
          last={last}
          all={() => setShowing(true)}
          busy={back.isPending}
          undo={() => back.mutate(undefined)}
        >
          {ahead.length > 0 && <WaveButton wave={wave} />}
        </Steps>
      </May>
      {error && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3 text-sm">
          {error.message}
        </p>
      )}
      <Remarks remarks={remarks} close={() => setRemarks([])} />
      <May right="plan">
        <WaveHead wave={wave} first={ahead[0]?.week ?? ""} last={ahead.at(-1)?.week ?? ""} />
      </May>
      <Turn cell={cell} of={data.weeks.length} seen={seen} walk={walk} />
      <table className="w-full table-fixed border-b border-rule">
        <colgroup>
          <col className={wave.open ? "w-40 max-md:w-24" : "w-24 max-md:w-20"} />
          {weeks.map((one) => (
            <col key={one.week} />
          ))}
        </colgroup>
        <Heads weeks={weeks} chosen={cell.week - seen[0]} />
        <Days
          days={data.days}
          seen={seen}
          at={at}
          cell={cell}
          moving={held?.move ? held.session.id : null}
          walk={walk}
          grid={grid}
        />
        <WeekFoot athlete={place.athlete} weeks={weeks}>
          {wave.open && <WaveRows weeks={weeks} wave={wave} />}
        </WeekFoot>
      </table>
      <ChangesDialog athlete={place.athlete} open={showing} close={() => setShowing(false)} />
      <May right="plan">
        <LayForm
          session={here ?? null}
          week={data.weeks[cell.week]?.week ?? ""}
          sessions={ofWeek}
          most={Math.max(1, data.weeks.length - 1 - cell.week)}
          busy={change.isPending}
          lay={(body) => change.mutate(body)}
          open={() => walk.open(cell)}
        />
      </May>
      <Goals athlete={place.athlete} />
    </main>
  );
}

/** What a coach would not see of sessions that were just laid. */
function Remarks({ remarks, close }: { remarks: string[]; close: () => void }) {
  if (remarks.length === 0) return null;
  return (
    <div role="status" className="mb-2 flex gap-3 border-l-4 border-caution pl-3 text-sm">
      <ul className="min-w-0">
        {remarks.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <button type="button" className="trail-link ml-auto self-start text-ink-2" onClick={close}>
        Dismiss
      </button>
    </div>
  );
}

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

interface TurnProps {
  cell: Cell;
  of: number;
  seen: [number, number];
  walk: Walk;
}

/** Where not all weeks are seen: the ways to those before and after. */
function Turn({ cell, of, seen: [from, to], walk }: TurnProps) {
  if (to - from === of) return null;
  const turn = (week: number) => walk.to({ ...cell, week });
  return (
    <p className="flex items-baseline gap-3 pb-1 text-sm">
      <button
        type="button"
        className="key-button"
        disabled={from === 0}
        onClick={() => turn(from - 1)}
      >
        Earlier
      </button>
      <span className="text-ink-2">
        weeks {from + 1} and {to} of {of}
      </span>
      <button type="button" className="key-button" disabled={to === of} onClick={() => turn(to)}>
        Later
      </button>
    </p>
  );
}

function Heads({ weeks, chosen }: { weeks: Data["weeks"]; chosen: number }) {
  return (
    <thead>
      <tr className="border-b border-rule text-left">
        <td />
        {weeks.map((one, week) => (
          <th
            key={one.week}
            scope="col"
            className={`px-2 pb-1 font-normal ${week === chosen ? "" : "text-ink-2"}`}
          >
            <span className={week === chosen ? "font-semibold" : ""}>{weekName(one.week)}</span>
            {one.over && <span className="text-sm italic"> past</span>}
            {!one.over && one.lighter && <span className="text-sm italic"> lighter</span>}
          </th>
        ))}
      </tr>
    </thead>
  );
}

interface DayProps {
  at: Cell;
  date: string;
  sessions: Session[];
  isHere: boolean;
  moving: number | null;
  walk: Walk;
}

/** A day of the block: its sessions, hollow until they are done. */
function Day({ at, date, sessions, isHere, moving, walk }: DayProps) {
  return (
    <button
      type="button"
      data-cell={`${at.day}/${at.week}`}
      tabIndex={isHere ? 0 : -1}
      onFocus={() => walk.to(at)}
      onDoubleClick={() => walk.open(at)}
      onKeyDown={(event) => {
        const arrow = ARROWS[event.key];
        if (arrow) {
          event.preventDefault();
          walk.by(...arrow);
        }
        if (event.key === "Enter") {
          event.preventDefault();
          walk.open(at);
        }
      }}
      className={`relative h-full w-full px-1.5 py-0.5 text-left align-top text-sm leading-snug ${isHere ? "bg-band" : "hover:bg-band/40"}`}
    >
      <span className="sr-only">
        {weekday(date)} {date}
        {sessions.length === 0 && ": free"}
      </span>
      {sessions.map((session) => (
        <span
          key={session.id}
          className={`block ${moving === session.id ? "text-ink-2 italic" : ""}`}
        >
          <span className="flex items-center gap-1.5">
            <span
              aria-hidden="true"
              className={`size-2 shrink-0 border border-ink ${session.done ? "bg-ink" : ""}`}
            />
            <span className="truncate">{session.title || "Session"}</span>{" "}
          </span>
          <span className="block truncate pl-3.5 text-xs text-ink-2">
            {number(session.sets, 1)} sets, {number(session.minutes, 0)} min
            <span className="sr-only">, {session.done ? "done" : "planned"}</span>
          </span>
          {session.unread.length > 0 && (
            <span
              className="block truncate pl-3.5 text-xs text-high"
              title={`Not read, so not counted: ${session.unread.join("; ")}`}
            >
              {count(session.unread.length, "line")} not read
            </span>
          )}
        </span>
      ))}
    </button>
  );
}

interface StepsProps {
  held: Held | null;
  /** The latest change that can be taken back. */
  last: Schemas["JournalLine"] | undefined;
  all: () => void;
  busy: boolean;
  undo: () => void;
  children: React.ReactNode;
}

/** What the keys do now, and the way back. */
function Steps({ held, last, all, busy, undo, children }: StepsProps) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-1 text-sm">
      {children}
      <p className={`text-ink-2 ${held ? "" : "max-md:hidden"}`}>
        {held
          ? `${held.session.title || "A session"} in hand: ${KEYS.paste.key} pastes it`
          : `Arrows walk, Enter writes, ${KEYS.copy.key} copies, ${KEYS.cut.key} moves, ${KEYS.paste.key} pastes`}
      </p>
      <span role="status" className="ml-auto min-w-0 truncate text-ink-2">
        {last?.says}
      </span>
      <button
        type="button"
        className="key-button"
        disabled={!last || busy}
        title={`Key ${KEYS.undo.key}`}
        onClick={undo}
      >
        Undo
      </button>
      <button type="button" className="trail-link text-ink-2" onClick={all}>
        All changes
      </button>
    </div>
  );
}

interface DaysProps {
  days: string[][];
  /** The weeks that there is room for: the first one's place, and the place behind the last. */
  seen: [number, number];
  at: (cell: Cell) => Session[];
  cell: Cell;
  moving: number | null;
  walk: Walk;
  grid: RefObject<HTMLTableSectionElement | null>;
}

/** The days of the block, a row for each day of the week. */
function Days({ days, seen: [from, to], at, cell, moving, walk, grid }: DaysProps) {
  return (
    <tbody ref={grid}>
      {days.map((row, day) => {
        // A day on which nobody trains takes no room.
        const isFree = row.every((_, week) => at({ day, week }).length === 0);
        return (
          <tr key={row[0]} className="border-b border-hair">
            <th
              scope="row"
              className="py-1 pr-2 text-left align-top text-sm font-normal text-ink-2"
            >
              {weekday(row[0] ?? "")}
            </th>
            {row.slice(from, to).map((one, along) => {
              const week = from + along;
              return (
                <td key={one} className={`p-0.5 align-top ${isFree ? "h-7" : "h-11.5"}`}>
                  <Day
                    at={{ day, week }}
                    date={one}
                    sessions={at({ day, week })}
                    isHere={day === cell.day && week === cell.week}
                    moving={moving}
                    walk={walk}
                  />
                </td>
              );
            })}
          </tr>
        );
      })}
    </tbody>
  );
}
