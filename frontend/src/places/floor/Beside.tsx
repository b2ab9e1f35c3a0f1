import type { Schemas } from "@/api/client";
import { Athlete } from "./Athlete";
import { LetIn } from "./LetIn";
import { type Run, type State, leader, wanted } from "./run";

interface Props {
  runs: Run[];
  movements: Schemas["FloorMovement"][];
  state: State;
  open: (run: Run, step: number) => void;
  goOn: (run: Run) => void;
  tick: (run: Run, line: string) => void;
  /** Do a step now, before its turn: what stands before it stays open. */
  take: (step: number) => void;
}

/** Each athlete's own sets, and what comes next. */
export function Beside({ runs, movements, state, open, goOn, tick, take }: Props) {
  const many = runs.length > 1;
  return (
    <aside
      aria-label="Athletes and what is next"
      // On a phone the loads of a group stand first: they are what is called out.
      className={`flex min-h-0 flex-col overflow-auto border-l border-rule bg-paper px-5 pt-3 pb-5 max-md:shrink-0 max-md:overflow-visible max-md:border-l-0 ${many ? "max-md:order-first max-md:border-b" : "max-md:border-t"}`}
    >
      <ul>
        {runs.map((run) => (
          <Athlete
            key={run.athlete}
            run={run}
            movements={movements}
            state={state}
            many={many}
            open={(step) => open(run, step)}
            goOn={() => goOn(run)}
            tick={(line) => tick(run, line)}
          />
        ))}
      </ul>
      {state.clock.phase !== "over" && (
        <LetIn runs={runs} state={state} className="max-md:hidden" />
      )}
      {state.clock.phase !== "over" && (
        <div className={many ? "max-md:hidden" : ""}>
          <h2 className="mt-4 text-sm text-ink-2 italic">Next</h2>
          <ol className="text-lg">
            {[1, 2, 3, 4]
              .map((ahead) => state.clock.step + ahead)
              .map((step) => {
                const next = wanted(leader(runs), state, step);
                return (
                  next && (
                    <li key={step} className="border-b border-hair">
                      <button
                        type="button"
                        className="flex min-h-8 w-full items-center justify-between gap-3 text-left hover:bg-band max-md:min-h-11"
                        title="Do it now, before its turn"
                        onClick={() => take(step)}
                      >
                        <span className="truncate">{next.movement}</span>{" "}
                        <span className="shrink-0 text-ink-2">{next.says}</span>
                      </button>
                    </li>
                  )
                );
              })}
          </ol>
        </div>
      )}
    </aside>
  );
}
