import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Stepper } from "@/places/dial/Stepper";
import { weekName } from "@/words";

interface Props {
  /** The session in the cell that has the focus. */
  session: Schemas["BlockSession"] | null;
  week: string;
  sessions: Schemas["BlockSession"][];
  /** How many weeks of the block come after. */
  most: number;
  busy: boolean;
  lay: (body: Schemas["LayBody"]) => void;
  open: () => void;
}

/** Lay a session or a week over the weeks that follow, with a step each week; make a week lighter. */
export function LayForm({ session, week, sessions, most, busy, lay, open }: Props) {
  const [weeks, setWeeks] = useState(3);
  const [load, setLoad] = useState(2.5);
  const [reps, setReps] = useState(0);
  const [sets, setSets] = useState(0);
  const [rest, setRest] = useState(0);
  const [minus, setMinus] = useState(false);
  const change = { load: load / 100, reps, sets, rest_s: minus ? -rest : rest };
  const shifts = Array.from({ length: Math.min(weeks, 12) }, (_, at) => (at + 1) * 7);
  const over = (ids: number[]) => lay({ sessions: ids, shifts, change, move: false, lighter: false });
  const name = weekName(week).toLowerCase();
  return (
    <section aria-label="Lay over the weeks" className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
      <span className="flex items-baseline gap-1">
        Over the next <Stepper label="Weeks" value={weeks} step={1} least={1} most={12} whole set={setWeeks} /> week{weeks === 1 ? "" : "s"}
        {weeks > most && <span className="text-ink-2">(beyond those shown)</span>}, each week
      </span>
      <span className="flex items-baseline">load + <Stepper label="Load, per cent a week" value={load} step={0.5} most={20} set={setLoad} /> %</span>
      <span className="flex items-baseline">reps + <Stepper label="Reps a week" value={reps} step={1} most={10} whole set={setReps} /></span>
      <span className="flex items-baseline">sets + <Stepper label="Sets a week" value={sets} step={1} most={5} whole set={setSets} /></span>
      <span className="flex items-baseline">
        rest
        <button type="button" className="mx-1 h-6 w-6 border border-rule" aria-label={minus ? "Rest gets shorter" : "Rest gets longer"} onClick={() => setMinus(!minus)}>{minus ? "−" : "+"}</button>
        <Stepper label="Rest, seconds a week" value={rest} step={5} most={300} set={setRest} /> s
      </span>
      <span className="ml-auto flex gap-2">
        <button type="button" className="key-button" disabled={!session || busy} onClick={() => session && over([session.id])}>
          Lay this session
        </button>
        <button type="button" className="key-button" disabled={sessions.length === 0 || busy} onClick={() => over(sessions.map((one) => one.id))}>
          Lay all of {name}
        </button>
        <button
          type="button" className="key-button" disabled={sessions.length === 0 || busy}
          onClick={() => lay({ sessions: sessions.map((one) => one.id), shifts: [0], change: { load: 0, reps: 0, sets: 0, rest_s: 0 }, move: false, lighter: true })}
        >
          Make {name} lighter
        </button>
        <button type="button" className="ink-button" onClick={open}>{session ? "Write" : "New session"}</button>
      </span>
      <p className="w-full text-xs text-ink-2">
        Weeks ahead are compared as if the plans before them were done. What stands on laid-over days is put aside. A lighter week keeps loads and about three fifths of the sets. Form before load; heavy bar work needs a spotter or safeties.
      </p>
    </section>
  );
}
