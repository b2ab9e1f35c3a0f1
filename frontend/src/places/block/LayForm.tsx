import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Stepper } from "@/shared/Stepper";
import { weekName } from "@/words";
import { type Change, ChangeFields, NONE } from "./ChangeFields";

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
  const [change, setChange] = useState<Change>({ ...NONE, load: 0.025 });
  const shifts = Array.from({ length: Math.min(weeks, 12) }, (_, at) => (at + 1) * 7);
  const over = (ids: number[]) =>
    lay({ sessions: ids, shifts, to: null, change, move: false, lighter: false });
  const name = weekName(week).toLowerCase();
  return (
    <section
      aria-label="Repeat over the weeks"
      className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2 text-sm"
    >
      <span className="flex items-baseline gap-1">
        Over the next{" "}
        <Stepper label="Weeks" value={weeks} step={1} least={1} most={12} whole set={setWeeks} />{" "}
        <span>
          week{weeks === 1 ? "" : "s"}
          {weeks > most && <span className="text-ink-2"> (beyond those shown)</span>}, each week
        </span>
      </span>
      <ChangeFields value={change} put={setChange} />
      <span className="ml-auto flex gap-2">
        <button
          type="button"
          className="key-button"
          disabled={!session || busy}
          onClick={() => session && over([session.id])}
        >
          Repeat this session
        </button>
        <button
          type="button"
          className="key-button"
          disabled={sessions.length === 0 || busy}
          onClick={() => over(sessions.map((one) => one.id))}
        >
          Repeat all of {name}
        </button>
        <button
          type="button"
          className="key-button"
          disabled={sessions.length === 0 || busy}
          onClick={() =>
            lay({
              sessions: sessions.map((one) => one.id),
              shifts: [0],
              to: null,
              change: NONE,
              move: false,
              lighter: true,
            })
          }
        >
          Make {name} lighter
        </button>
        <button type="button" className="ink-button" onClick={open}>
          {session ? "Write" : "New session"}
        </button>
      </span>
      <p className="w-full text-xs text-ink-2">
        Weeks ahead are compared as if the plans before them were done. Sessions already on those
        days are replaced. Loads are rounded to what the kit has. A lighter week keeps loads and
        about three fifths of the sets. Form before load; heavy bar work needs a spotter or
        safeties.
      </p>
    </section>
  );
}
