import type { Schemas } from "@/api/client";
import { beyond } from "@/shared/coreRules";
import { AsWritten } from "./AsWritten";
import { type Run, type State, told, wanted } from "./run";

interface Props {
  run: Run;
  movements: Schemas["FloorMovement"][];
  state: State;
  many: boolean;
  open: (step: number) => void;
  /** Whoever had stopped goes on. */
  goOn: () => void;
  tick: (line: string) => void;
}

/**
 * An athlete's own sets: while one works the one before and the one in hand, while one rests the one
 * just done and the next. A tap opens it: what is done is corrected, what is to come is changed.
 */
export function Athlete({ run, movements, state, many, open, goOn, tick }: Props) {
  const mine = state.own[run.athlete];
  const rests = state.clock.phase === "rest";
  const here = state.clock.step + (rests ? 1 : 0);
  const shown = [here - 1, here].filter((step) => step >= 0 && step < state.steps.length);
  return (
    <li className="border-b border-rule py-1.5">
      <p className="font-semibold">
        {run.name}
        {mine?.stopped && (
          <>
            <span className="ml-2 font-normal text-high">stopped</span>
            <button
              type="button"
              className="trail-link ml-3 min-h-11 font-normal"
              onClick={goOn}
              aria-label={`${run.name} rejoins`}
            >
              rejoin
            </button>
          </>
        )}
      </p>
      {shown.map((step) => {
        const due = wanted(run, state, step);
        if (!due)
          return step === here ? (
            <p key={step} className="text-ink-2">
              nothing at this place
            </p>
          ) : null;
        const done = mine?.done[step];
        const movement = movements.find((one) => one.name === done?.exercise);
        const doubtful = Boolean(done && beyond(done, movement?.bounds));
        const verb = done === undefined ? "change" : "correct";
        return (
          <button
            key={step}
            type="button"
            disabled={mine?.stopped && done === undefined}
            onClick={() => open(step)}
            className="flex min-h-11 w-full items-center gap-2.5 text-left"
          >
            <span className="sr-only">
              {run.name}, set {step + 1}:{" "}
            </span>
            <span
              aria-hidden="true"
              className={`size-3 shrink-0 border border-ink ${done ? "bg-ink" : ""}`}
            />
            <span className="min-w-0 flex-1">
              <span className="block truncate text-sm text-ink-2">
                {rests && step === here && "next: "}
                {done?.exercise ?? due.movement}
              </span>
              <span
                className={`${done === null ? "text-ink-2 line-through" : ""} ${many && step === here ? "text-xl leading-tight font-semibold" : ""}`}
              >
                {done ? told(done) : due.says}
                {done?.note && <span className="block text-base italic">{done.note}</span>}
                {doubtful && <span className="ml-2 text-base text-caution">is that right?</span>}
              </span>
            </span>
            <span className="trail-link text-sm text-ink-2">{verb}</span>
          </button>
        );
      })}
      <AsWritten lines={run.unread ?? []} ticked={mine?.ticked ?? []} tick={tick} />
    </li>
  );
}
