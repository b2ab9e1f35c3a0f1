import { Link } from "react-router";
import { weekPath } from "@/frame/places";
import { count } from "@/words";
import { type Run, type State, leader, minutesOf, openSteps, setsOf, wanted } from "./run";

interface Props {
  runs: Run[];
  state: State;
  again: () => void;
  /** Go to a step. */
  take: (step: number) => void;
  /** The minutes of the clock into the logs. */
  keep: (minutes: number) => void;
}

/** So many sets that were left are told by name. */
const MOST_LEFT = 6;

/** The run at its end: how much was done, what is still open, and the way to the log. */
export function Over({ runs, state, again, take, keep }: Props) {
  const left = openSteps(state, runs);
  return (
    <div className="pt-6">
      <h1 className="text-[2.5rem] font-semibold">{left.length > 0 ? "Session ended" : "Done"}</h1>
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
      <Minutes runs={runs} state={state} keep={keep} />
      {left.length > 0 && (
        <section aria-labelledby="left" className="mt-4">
          <h2 id="left" className="text-lg font-semibold">
            {count(left.length, "set")} not done
          </h2>
          <ul className="text-lg">
            {left.slice(0, MOST_LEFT).map((step) => (
              <li key={step} className="flex items-center gap-4 border-b border-hair">
                <span className="min-w-0 flex-1 truncate">
                  {wanted(leader(runs), state, step)?.movement}
                  <span className="text-ink-2">, set {step + 1} of the session</span>
                </span>
                <button
                  type="button"
                  className="trail-link min-h-11"
                  aria-label={`do it now: set ${step + 1}`}
                  onClick={() => take(step)}
                >
                  do it now
                </button>
              </li>
            ))}
          </ul>
          {left.length > MOST_LEFT && (
            <p className="text-ink-2">and {left.length - MOST_LEFT} more</p>
          )}
        </section>
      )}
      <p className="mt-5 flex flex-wrap gap-3">
        <button
          type="button"
          className="key-button h-12"
          onClick={() => take(Math.max(0, state.clock.step))}
        >
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

/** How long it took by the clock, and whether that is kept with the logs. */
function Minutes({ runs, state, keep }: Pick<Props, "runs" | "state" | "keep">) {
  const minutes = minutesOf(state);
  if (minutes === null || minutes < 1) return null;
  const isKept = runs.every((run) => state.own[run.athlete]?.minutes === minutes);
  return (
    <p className="mt-3 flex flex-wrap items-center gap-x-4 text-lg">
      {count(minutes, "minute")} by the clock{isKept ? ", logged." : "."}
      {!isKept && (
        <button type="button" className="key-button h-11" onClick={() => keep(minutes)}>
          Log the minutes
        </button>
      )}
    </p>
  );
}

/** The ISO week of a day, as the address has it. */
function weekOf(iso: string): string {
  const day = new Date(`${iso}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() + 4 - (day.getUTCDay() || 7));
  const first = Date.UTC(day.getUTCFullYear(), 0, 1);
  return `${day.getUTCFullYear()}-W${String(Math.ceil(((day.getTime() - first) / 86_400_000 + 1) / 7)).padStart(2, "0")}`;
}
