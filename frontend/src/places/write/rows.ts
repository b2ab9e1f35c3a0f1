import type { Schemas } from "@/api/client";

export type Row = Schemas["RowOut"];
export type Entry = Schemas["EntryOut"];

/** What can be chosen in the fields, in the words of the notation. */
export type Choices = Pick<Schemas["NotationOut"], "sides" | "ranges" | "parts" | "forms">;

/** A row of the form with a name of its own, which stays while rows come and go around it. */
export interface Placed {
  id: number;
  row: Row;
}

let last = 0;
export const placed = (row: Row): Placed => ({ id: ++last, row });

export const EMPTY: Entry = {
  moves: "",
  sets: "",
  dose: "",
  sides: "",
  load: "",
  band: "",
  tempo: "",
  range: "",
  hold: "",
  rpe: "",
  rest: "",
  to_failure: false,
  for_time: false,
  warm_up: false,
  note: "",
  why: "",
};

const bare = { text: "", entries: [], part: null, rounds: null, rest: "", label: "" };

export const NEW = {
  sets: (): Row => ({ ...bare, kind: "sets", entries: [{ ...EMPTY, sets: "3", dose: "8" }] }),
  turn: (): Row => ({ ...bare, kind: "turn", entries: [{ ...EMPTY }] }),
  rounds: (): Row => ({
    ...bare,
    kind: "rounds",
    rounds: {
      form: "rounds",
      count: "3",
      rungs: "",
      on: "40 s",
      off: "20 s",
      between: "60 s",
      every: "",
      for_time: false,
    },
  }),
  part: (): Row => ({
    ...bare,
    kind: "part",
    part: { kind: "main", label: "", pre_exhaust: false },
  }),
  comment: (): Row => ({ ...bare, kind: "other", text: "# " }),
};

/** What moves as one: rounds with their turns, everything else alone. From and to, both within. */
export function groups(rows: Placed[]): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = [];
  rows.forEach(({ row }, at) => {
    const before = found.at(-1);
    const head = before && rows[before.from]?.row.kind === "rounds";
    if (row.kind === "turn" && before && head) before.to = at;
    else found.push({ from: at, to: at });
  });
  return found;
}

/** The rows with one moved a step up or down: a turn among its turns, all else by groups. */
export function moved(rows: Placed[], at: number, step: -1 | 1): Placed[] {
  const all = groups(rows);
  const index = all.findIndex((one) => one.from <= at && at <= one.to);
  const group = all[index];
  if (!group) return rows;
  if (rows[at]?.row.kind === "turn" && at !== group.from) {
    const other = at + step;
    return other > group.from && other <= group.to ? swap(rows, at, at, other, other) : rows;
  }
  const other = all[index + step];
  return other ? swap(rows, group.from, group.to, other.from, other.to) : rows;
}

/** The rows with the one at a place dragged onto another. */
export function dragged(rows: Placed[], from: number, onto: number): Placed[] {
  let now = rows;
  let at = from;
  const id = rows[from]?.id;
  const target = rows[onto]?.id;
  for (let steps = 0; steps < rows.length; steps += 1) {
    const there = now.findIndex((one) => one.id === target);
    if (at === there) return now;
    const next = moved(now, at, there > at ? 1 : -1);
    if (next === now) return now;
    now = next;
    const passed = at;
    at = now.findIndex((one) => one.id === id);
    // It went past the place it was dragged onto: it is there.
    const left = now.findIndex((one) => one.id === target);
    if ((passed < there && at > left) || (passed > there && at < left)) return now;
  }
  return now;
}

function swap(rows: Placed[], a: number, b: number, c: number, d: number): Placed[] {
  const [first, second] =
    a < c
      ? [
          [a, b],
          [c, d],
        ]
      : [
          [c, d],
          [a, b],
        ];
  const [from = 0, to = 0] = first ?? [];
  const [start = 0, end = 0] = second ?? [];
  return [
    ...rows.slice(0, from),
    ...rows.slice(start, end + 1),
    ...rows.slice(to + 1, start),
    ...rows.slice(from, to + 1),
    ...rows.slice(end + 1),
  ];
}
