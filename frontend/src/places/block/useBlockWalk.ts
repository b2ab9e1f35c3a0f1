import { useRef, useState } from "react";
import { flushSync } from "react-dom";
import { useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { weekPath } from "@/frame/places";

export type Data = Schemas["Block"];
export type Session = Schemas["BlockSession"];
export type Cell = { day: number; week: number };

/** The ways over the days of a block. */
export interface Walk {
  to: (cell: Cell) => void;
  by: (days: number, along: number) => void;
  open: (cell: Cell) => void;
}

/** The day in hand, what stands on it, and the ways to others. */
export function useBlockWalk(place: WeekPlace, data: Data | undefined) {
  const [chosen, setCell] = useState<Cell | null>(null);
  const grid = useRef<HTMLTableSectionElement>(null);
  const go = useNavigate();
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
  const by = (days: number, along: number) => {
    const next = {
      day: Math.min(6, Math.max(0, cell.day + days)),
      week: Math.min((data?.weeks.length ?? 0) - 1, Math.max(0, cell.week + along)),
    };
    // On a phone the week may come into sight only now.
    flushSync(() => setCell(next));
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
  const walk: Walk = { to: setCell, by, open };
  return { cell, at, date, here, walk, grid };
}
