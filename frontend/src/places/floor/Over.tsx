import { Link } from "react-router";
import { weekPath } from "@/frame/places";
import { type Run, type State, setsOf } from "./run";

interface Props {
  runs: Run[];
  state: State;
  again: () => void;
  back: () => void;
}

/** The run at its end: how much was done, and the way to the log. */
export function Over({ runs, state, again, back }: Props) {
  return (
    <div className="pt-6">
      <h1 className="text-[2.5rem] font-semibold">Done</h1>
      <ul className="mt-2 text-lg">
        {runs.map((run) => {
          const mine = state.own[run.athlete];
          const sets = mine ? setsOf(mine).length : 0;
          return (
            <li key={run.athlete} className="border-b border-hair py-1">
              {run.name}: {sets} of {run.sets.length} sets
              {mine?.stopped ? ", stopped because something hurt" : ""}.{" "}
              <Link
                className="trail-link"
                to={`${weekPath(run.athlete, weekOf(run.date), "log")}?session=plan-${run.plan}`}
              >
                Exertion and notes in the log
              </Link>
            </li>
          );
        })}
      </ul>
      <p className="mt-5 flex flex-wrap gap-3">
        <button type="button" className="key-button h-12" onClick={back}>
          Back to the last set
        </button>
        <button type="button" className="key-button h-12" onClick={again}>
          Run it again from the start
        </button>
      </p>
      <p className="mt-2 text-sm text-ink-2">
        Run again, the sets go into the same log, behind those that are in it.
      </p>
    </div>
  );
}

/** The ISO week of a day, as the address has it. */
function weekOf(iso: string): string {
  const day = new Date(`${iso}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() + 4 - (day.getUTCDay() || 7));
  const first = Date.UTC(day.getUTCFullYear(), 0, 1);
  return `${day.getUTCFullYear()}-W${String(Math.ceil(((day.getTime() - first) / 86_400_000 + 1) / 7)).padStart(2, "0")}`;
}
