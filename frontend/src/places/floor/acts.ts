import { type NextAct, acted, elapsed, length } from "./clock";
import { type Run, type State, leader, pastDone, planned, putSet, tapDone } from "./run";
import type { measured } from "./useSensor";

/** What the sensor saw of a set. */
export type Seen = ReturnType<typeof measured>;

/** The set in hand done, with what the sensor saw of it. */
function done(state: State, runs: Run[], now: number, seen: Seen): State {
  const { clock, steps } = state;
  const lead = leader(runs);
  // A set by the clock that is ended by a tap lasted as long as it did.
  const isTimed = clock.phase === "work" && length(planned(lead, steps, clock.step)) !== null;
  const next = tapDone(state, runs, clock.step, isTimed ? elapsed(clock, now) : undefined);
  const mine = next.own[lead.athlete]?.done[clock.step];
  if (!seen || !mine) return next;
  const saw = { reps: seen.reps, measured_reps: seen.reps, measured_tension_s: seen.tension };
  return putSet(next, lead.athlete, clock.step, { ...mine, ...saw });
}

/** A run after the one large button was pressed. */
export function act(
  state: State,
  runs: Run[],
  does: NextAct["does"],
  now: number,
  seen: Seen,
): State {
  const said = does === "finish" ? done(state, runs, now, seen) : state;
  const clock = acted(state.clock, does, now, state.steps, leader(runs).sets);
  const next = { ...said, clock };
  // What was taken before its turn is not come to again.
  return does === "finish" || does === "skip rest" ? pastDone(next, runs, now) : next;
}
