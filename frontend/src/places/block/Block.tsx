import { useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { block as calls, useBlock } from "@/api/block";
import { useChange } from "@/api/changes";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { weekPath } from "@/frame/places";
import { number, weekName, weekday } from "@/words";
import { BlockHead } from "./BlockHead";
import { NONE } from "./ChangeFields";
import { LayForm } from "./LayForm";
import { WeekFoot } from "./WeekFoot";

type Session = Schemas["BlockSession"];
type Cell = { day: number; week: number };

/** Days down, weeks across: plans hollow, what was done solid, the four measures below. */
export function Block() {
  const place = useWeekPlace();
  const [params, setParams] = useSearchParams();
  const found = useBlock(place, Math.min(8, Math.max(3, Number(params.get("weeks") ?? 6) || 6)));
  const weeks = found.data?.weeks.length ?? 0;
  const [chosen, setCell] = useState<Cell | null>(null);
  const [held, setHeld] = useState<{ session: Session; move: boolean } | null>(null);
  const [past, setPast] = useState<Schemas["Laid"][]>([]);
  const grid = useRef<HTMLTableSectionElement>(null);
  const go = useNavigate();
  const change = useChange(async (body: Schemas["LayBody"]) => {
    const done = await calls.lay(place, body);
    setPast((steps) => [...steps, done]);
  });
  const back = useChange(async () => {
    const last = past.at(-1);
    if (last) await calls.undo(place, last);
    setPast((steps) => steps.slice(0, -1));
  });
  const data = found.data;
  // Nobody has walked yet: the week of the address, which may lie in the middle of a block.
  const cell = chosen ?? {
    day: 0,
    week: Math.max(0, data?.weeks.findIndex((one) => one.week === place.week) ?? 0),
  };
  const at = (one: Cell): Session[] => {
    const date = data?.days[one.day]?.[one.week];
    return data?.sessions.filter((session) => session.date === date) ?? [];
  };
  const date = data?.days[cell.day]?.[cell.week];
  const [here] = at(cell);
  const move = (days: number, along: number) => {
    const next = {
      day: Math.min(6, Math.max(0, cell.day + days)),
      week: Math.min(weeks - 1, Math.max(0, cell.week + along)),
    };
    setCell(next);
    grid.current?.querySelector<HTMLElement>(`[data-cell="${next.day}/${next.week}"]`)?.focus();
  };
  const open = (one: Cell) => {
    const week = data?.weeks[one.week]?.week;
    const day = data?.days[one.day]?.[one.week];
    const [session] = at(one);
    if (week && day)
      go(
        `${weekPath(place.athlete, week, "write")}?session=${session ? session.id : `new-${day}`}`,
      );
  };
  const paste = () => {
    if (!held || !date || date === held.session.date) return;
    change.mutate({
      sessions: [held.session.id],
      shifts: [],
      to: date,
      change: NONE,
      move: held.move,
      lighter: false,
    });
    if (held.move) setHeld(null);
  };
  useKeys({
    copy: () => here && setHeld({ session: here, move: false }),
    cut: () => here && setHeld({ session: here, move: true }),
    paste,
    undo: () => back.mutate(undefined),
  });
  if (found.error) return <Failure error={found.error} />;
  if (!data) return <p className="p-6 text-ink-2">Laying out the weeks…</p>;
  const ofWeek = data.sessions.filter((session) =>
    data.days.some((row) => row[cell.week] === session.date),
  );
  const error = change.error ?? back.error;
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-3 pb-8">
      <BlockHead
        place={place}
        week={data.weeks[cell.week]?.week ?? place.week}
        stored={data.stored}
        weeks={data.weeks.length}
        show={(next) => setParams({ weeks: String(next) }, { replace: true })}
        laid={(done) => setPast((steps) => [...steps, done])}
      />
      <div className="flex items-baseline gap-4 pb-1 text-sm">
        <p className="text-ink-2">
          {held
            ? `${held.session.title || "A session"} in hand: ${KEYS.paste.key} puts it down`
            : `Arrows walk, Enter writes, ${KEYS.copy.key} copies, ${KEYS.cut.key} moves, ${KEYS.paste.key} puts down`}
        </p>
        <span role="status" className="ml-auto text-ink-2">
          {past.length > 0 ? `${past.length} step${past.length === 1 ? "" : "s"} to undo` : ""}
        </span>
        <button
          type="button"
          className="key-button"
          disabled={past.length === 0 || back.isPending}
          title={`Key ${KEYS.undo.key}`}
          onClick={() => back.mutate(undefined)}
        >
          Undo
        </button>
      </div>
      {error && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3 text-sm">
          {error.message}
        </p>
      )}
      <table className="w-full table-fixed border-b border-rule">
        <colgroup>
          <col className="w-24" />
          {data.weeks.map((one) => (
            <col key={one.week} />
          ))}
        </colgroup>
        <thead>
          <tr className="border-b border-rule text-left">
            <td />
            {data.weeks.map((one, week) => (
              <th
                key={one.week}
                scope="col"
                className={`px-2 pb-1 font-normal ${week === cell.week ? "" : "text-ink-2"}`}
              >
                <span className={week === cell.week ? "font-semibold" : ""}>
                  {weekName(one.week)}
                </span>
                {one.over && <span className="text-sm italic"> over</span>}
                {!one.over && one.lighter && <span className="text-sm italic"> lighter</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={grid}>
          {data.days.map((days, day) => (
            <tr key={days[0]} className="border-b border-hair">
              <th
                scope="row"
                className="py-1 pr-2 text-left align-top text-sm font-normal text-ink-2"
              >
                {weekday(days[0] ?? "")}
              </th>
              {days.map((one, week) => (
                <td key={one} className="h-11.5 p-0.5 align-top">
                  <button
                    type="button"
                    data-cell={`${day}/${week}`}
                    tabIndex={day === cell.day && week === cell.week ? 0 : -1}
                    aria-label={label(one, at({ day, week }))}
                    onFocus={() => setCell({ day, week })}
                    onDoubleClick={() => open({ day, week })}
                    onKeyDown={(event) => {
                      const arrow = ARROWS[event.key];
                      if (arrow) {
                        event.preventDefault();
                        move(...arrow);
                      }
                      if (event.key === "Enter") {
                        event.preventDefault();
                        open({ day, week });
                      }
                    }}
                    className={`h-full w-full px-1.5 py-0.5 text-left align-top text-sm leading-snug ${day === cell.day && week === cell.week ? "bg-band" : "hover:bg-band/40"}`}
                  >
                    {at({ day, week }).map((session) => (
                      <span
                        key={session.id}
                        className={`block ${held?.move && held.session.id === session.id ? "text-ink-2 italic" : ""}`}
                      >
                        <span className="flex items-center gap-1.5">
                          <span
                            aria-hidden="true"
                            className={`size-2 shrink-0 border border-ink ${session.done ? "bg-ink" : ""}`}
                          />
                          <span className="truncate">{session.title || "Session"}</span>
                        </span>
                        <span className="block truncate pl-3.5 text-xs text-ink-2">
                          {number(session.sets, 1)} sets, {number(session.minutes, 0)} min
                        </span>
                      </span>
                    ))}
                  </button>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        <WeekFoot weeks={data.weeks} />
      </table>
      <LayForm
        session={here ?? null}
        week={data.weeks[cell.week]?.week ?? ""}
        sessions={ofWeek}
        most={Math.max(1, weeks - 1 - cell.week)}
        busy={change.isPending}
        lay={(body) => change.mutate(body)}
        open={() => open(cell)}
      />
    </main>
  );
}

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

function label(date: string, sessions: Session[]): string {
  const what = sessions
    .map((one) => `${one.title || "session"}, ${one.done ? "done" : "planned"}`)
    .join("; ");
  return `${weekday(date)} ${date}: ${what || "free"}`;
}
