import type { Schemas } from "@/api/client";
import { type CoreSet, asPlanned } from "@/places/log/log";
import type { Clock, Step } from "./clock";

export type Run = Schemas["FloorRunOf"];
type Session = Schemas["Session"];

/** One athlete's log while it is made: a set for each step that was done, null for one left out. */
export interface Own {
  id: string;
  revision: number;
  done: Record<number, CoreSet | null>;
  /** What was stored of this session before, and is not of this run. */
  before: CoreSet[];
  pain: { exercise: string | null; note: string }[];
  stopped: boolean;
}

export interface State {
  steps: Step[];
  clock: Clock;
  own: Record<number, Own>;
  /** Whether the cautions were read. */
  begun: boolean;
}

const names = (set: CoreSet | undefined): string =>
  set ? (set.exercise ?? (set.moves ?? []).map((move) => move.exercise).join("+")).toLowerCase() : "";

/** A run at its beginning: with what is logged of it already, if something is. */
export function fresh(runs: Run[], now: number): State {
  const lead = leader(runs);
  const steps: Step[] = lead.sets.map((_, set) => ({ set, extra: false }));
  const own: Record<number, Own> = {};
  let first = steps.length;
  for (const run of runs) {
    const stored = run.log?.session.sets ?? [];
    const done: Own["done"] = {};
    let at = 0;
    while (at < stored.length && names(stored[at]) === names(run.sets[at]?.set)) {
      done[at] = stored[at] ?? null;
      at += 1;
    }
    first = Math.min(first, at);
    own[run.athlete] = {
      id: run.log?.client_id ?? crypto.randomUUID(), revision: run.log?.revision ?? 0, done,
      before: stored.slice(at), pain: (run.log?.session.pain ?? []).map((one) => ({ exercise: one.exercise ?? null, note: one.note ?? "" })), stopped: false,
    };
  }
  const begun = first < steps.length ? first : 0;
  return { steps, own, begun: false, clock: { step: begun, phase: first >= steps.length ? "over" : "ready", since: now, paused: null } };
}

/** Whose plan the clock follows: the one with the most sets. */
export const leader = (runs: Run[]): Run =>
  runs.reduce((most, one) => (one.sets.length > most.sets.length ? one : most), runs[0] as Run);

/** The planned set of an athlete at a step. */
export const planned = (run: Run, steps: Step[], step: number): Schemas["FloorSet"] | undefined => run.sets[steps[step]?.set ?? -1];

/** Mark a step as done as planned, for all that have not said otherwise and have not stopped. */
export function markDone(state: State, runs: Run[], step: number): State {
  const own = { ...state.own };
  for (const run of runs) {
    const mine = own[run.athlete];
    const plan = planned(run, state.steps, step);
    if (!mine || mine.stopped || !plan || mine.done[step] !== undefined) continue;
    own[run.athlete] = { ...mine, done: { ...mine.done, [step]: asPlanned(plan.set) } };
  }
  return { ...state, own };
}

/** Put what was done at a step otherwise, for one athlete. */
export function putSet(state: State, athlete: number, step: number, set: CoreSet | null): State {
  const mine = state.own[athlete];
  return mine ? { ...state, own: { ...state.own, [athlete]: { ...mine, done: { ...mine.done, [step]: set } } } } : state;
}

/** Room for new steps: what is done behind them keeps its set. */
export function insertSteps(state: State, steps: Step[], behind: number): State {
  const more = steps.length - state.steps.length;
  const own = Object.fromEntries(
    Object.entries(state.own).map(([athlete, mine]) => [
      athlete,
      { ...mine, done: Object.fromEntries(Object.entries(mine.done).map(([step, set]) => [Number(step) > behind ? Number(step) + more : Number(step), set])) },
    ]),
  );
  return { ...state, steps, own };
}

/** An athlete's log as it stands. */
export function logOf(run: Run, mine: Own): Session {
  const steps = Object.keys(mine.done).map(Number).sort((a, b) => a - b);
  const sets = steps.flatMap((step) => mine.done[step] ?? []);
  const stored = run.log?.session;
  return {
    date: run.date, title: run.title, sets: [...sets, ...mine.before], rpe: stored?.rpe ?? null, duration_min: stored?.duration_min ?? null,
    plan: null, notes: stored?.notes ?? "", pain: mine.pain,
  };
}
