import type { Schemas } from "@/api/client";
import { newId } from "@/api/id";
import type { CoreSet } from "@/api/client";
import { time, weight } from "@/words";
import { type Clock, type Step, jump, oneMore, pause } from "./clock";
import { asPlanned, fitting } from "@/shared/coreRules";
import type { Unseen } from "./unseen";

export type Run = Schemas["FloorRunOf"];
type Session = Schemas["Session"];

/** Sessions that are run by one clock, and what can be chosen in them. */
export interface Together {
  runs: Run[];
  movements: Schemas["FloorMovement"][];
  names: string[];
  caution: string;
  /** Whether the room has a sensor of reps. */
  sensor: boolean;
}

/** Lay sessions together that were fetched, and kept for a lost connection, one by one. */
export function together(found: Schemas["FloorRun"][]): Together {
  const movements = new Map(found.flatMap((one) => one.movements).map((one) => [one.name, one]));
  return {
    runs: found.map((one) => one.run),
    movements: [...movements.values()],
    names: [...new Set(found.flatMap((one) => one.names))],
    caution: found[0]?.caution ?? "",
    sensor: found.some((one) => one.sensor),
  };
}

/** A set that is logged besides those of the steps, behind one of them. */
interface ExtraSet {
  set: CoreSet;
  after: number;
  /** It is the other side of that step's set, which was ended early on one side: it goes with it. */
  otherSide?: boolean;
}

/** One athlete's log while it is made: a set for each step that was done, null for one left out. */
export interface Own {
  id: string;
  revision: number;
  done: Record<number, CoreSet | null>;
  /** The steps of `done` in the order of the log. */
  order: number[];
  /** What is to be done otherwise at steps to come: a movement that was swapped, another load. */
  ahead: Record<number, CoreSet>;
  /** What is logged besides, each behind a step of the log; -1 for before the first. */
  besides: ExtraSet[];
  pain: { exercise: string | null; note: string }[];
  stopped: boolean;
  /** Lines of the plan that are not read, and were ticked by hand. */
  ticked?: string[];
  /** The session's minutes, where they were kept from the clock. */
  minutes?: number;
}

export interface State {
  steps: Step[];
  clock: Clock;
  own: Record<number, Own>;
  /** Whether the cautions were read. */
  begun: boolean;
  /** The plans that it was begun with. */
  plans: string;
  /** When it was begun, in ms since 1970. */
  startedAt?: number;
  /** What nobody saw, and is asked about. */
  unseen?: Unseen | null;
  /** The side that begins a set of two; the left one if nothing is said. */
  firstSide?: Side;
}

export type Side = "left" | "right";
export const firstSide = (state: State): Side => state.firstSide ?? "left";
export const otherSide = (state: State): Side => (firstSide(state) === "left" ? "right" : "left");
/** The side in hand of a set of two. */
export const sideNow = (state: State): Side =>
  state.clock.other || state.clock.phase === "turn" ? otherSide(state) : firstSide(state);

/** The other side begins from here on. */
export const turnedAround = (state: State): State => ({ ...state, firstSide: otherSide(state) });

const names = (set: CoreSet | undefined): string =>
  set
    ? (set.exercise ?? (set.moves ?? []).map((move) => move.exercise).join("+")).toLowerCase()
    : "";

/** How a run is kept: one that was kept otherwise is begun anew, behind what is logged. */
const FORM = 2;

/** The plans of a run as they stand: another text means that one of them was written anew. */
export const plansOf = (runs: Run[]): string =>
  JSON.stringify([
    FORM,
    ...runs.map((run) => [run.plan, run.sets.map((one) => [one.set, one.rest_s])]),
  ]);

/** A run at its beginning: with what is logged of it already, if something is. */
export function fresh(runs: Run[], now: number): State {
  const lead = leader(runs);
  const steps: Step[] = lead.sets.map((_, set) => ({ set, extra: false }));
  const own: Record<number, Own> = {};
  let first = steps.length;
  for (const run of runs) {
    const logged = loggedOf(run);
    // It goes on behind the last set that is logged: what was left out before that was left out.
    first = Math.min(first, Math.max(-1, ...logged.order) + 1);
    own[run.athlete] = {
      id: run.log?.client_id ?? newId(),
      revision: run.log?.revision ?? 0,
      ...logged,
      ahead: {},
      pain: (run.log?.session.pain ?? []).map((one) => ({
        exercise: one.exercise ?? null,
        note: one.note ?? "",
      })),
      stopped: false,
      ticked: unreadOf(run).filter((line) =>
        (run.log?.session.notes ?? "").split("\n").includes(noteOf(line)),
      ),
    };
  }
  const begun = first < steps.length ? first : 0;
  return {
    steps,
    own,
    begun: false,
    plans: plansOf(runs),
    clock: {
      step: begun,
      phase: first >= steps.length ? "over" : "ready",
      since: now,
      paused: null,
    },
  };
}

/** What is logged, each set at the step that it was done for; the rest behind the step before it. */
function loggedOf(run: Run): Pick<Own, "done" | "order" | "besides"> {
  const found: Pick<Own, "done" | "order" | "besides"> = { done: {}, order: [], besides: [] };
  run.log?.session.sets.forEach((set, at) => {
    const step = run.log_steps[at] ?? null;
    if (step === null) found.besides.push({ set, after: found.order.at(-1) ?? -1 });
    // A left and a right set that were done for one of both sides: the second goes with the first.
    else if (found.done[step]) found.besides.push({ set, after: step, otherSide: true });
    else {
      found.done[step] = set;
      found.order.push(step);
    }
  });
  return found;
}

/** Whose plan the clock follows: the one with the most sets. */
export const leader = (runs: Run[]): Run =>
  runs.reduce((most, one) => (one.sets.length > most.sets.length ? one : most), runs[0] as Run);

/** The planned set of an athlete at a step. */
export const planned = (run: Run, steps: Step[], step: number): Schemas["FloorSet"] | undefined =>
  run.sets[steps[step]?.set ?? -1];

/** What an athlete is to do at a step, as it now stands: the plan, or what was changed ahead. */
export function wanted(
  run: Run,
  state: State,
  step: number,
): { set: CoreSet; movement: string; says: string } | undefined {
  const plan = planned(run, state.steps, step);
  if (!plan) return undefined;
  const set = state.own[run.athlete]?.ahead[step];
  if (!set)
    return {
      set: asPlanned(plan.set),
      movement: plan.movement,
      says: [plan.dose, load(plan), plan.set.warm_up && "warm-up"].filter(Boolean).join(", "),
    };
  return { set, movement: set.exercise ?? plan.movement, says: told(set) };
}

/** A load that is lifted is lifted at it; a band and help are told as they are. */
const load = ({ set, load: says }: Schemas["FloorSet"]) =>
  says && (set.band || (set.load_kg ?? 0) < 0 ? says : `at ${says}`);

/** A set in a few words. */
export function told(set: CoreSet): string {
  if (set.loads) {
    const pieces = set.loads.map((piece) =>
      told({ ...set, ...piece, loads: null, rpe: null, warm_up: false }),
    );
    return [pieces.join(", then "), set.rpe != null && `RPE ${set.rpe}`].filter(Boolean).join(", ");
  }
  const dose = [set.reps != null && `${set.reps} reps`, set.seconds != null && time(set.seconds)]
    .filter(Boolean)
    .join(" in ");
  const several = (set.implements ?? 1) > 1 ? `${set.implements} × ` : "";
  const kg = set.load_kg ?? 0;
  const lifted = `${several}${weight(Math.abs(kg), set.unit)}`;
  const band = set.band;
  const side =
    set.sides && set.sides !== "both" ? ` ${set.sides === "each" ? "each side" : set.sides}` : "";
  return [
    `${dose}${side}`,
    band ? `band ${band}` : kg < 0 ? `${lifted} help` : kg > 0 ? `at ${lifted}` : "",
    set.rpe != null ? `RPE ${set.rpe}` : "",
    set.warm_up ? "warm-up" : "",
  ]
    .filter(Boolean)
    .join(", ");
}

/** The steps behind one at which an athlete is to do the same movement, and has not yet. */
export function toCome(run: Run, state: State, step: number): number[] {
  const name = names(planned(run, state.steps, step)?.set);
  return state.steps
    .map((_, at) => at)
    .filter(
      (at) =>
        at > step &&
        state.own[run.athlete]?.done[at] === undefined &&
        names(planned(run, state.steps, at)?.set) === name,
    );
}

/** A change of a set that holds for the sets to come, too: the movement, the side, the load and the reps where the plan had the same. */
export function carry(state: State, run: Run, step: number, set: CoreSet, loads: number[]): State {
  const mine = state.own[run.athlete];
  const here = planned(run, state.steps, step)?.set;
  if (!mine || !here) return state;
  const swapped = names(here) !== names(set);
  const ahead = { ...mine.ahead, [step]: set };
  for (const at of toCome(run, state, step)) {
    const plan = planned(run, state.steps, at)?.set;
    if (!plan) continue;
    const [was, due] = [here.load_kg ?? 0, plan.load_kg ?? 0];
    const next: CoreSet = {
      ...asPlanned(plan),
      exercise: set.exercise,
      moves: set.moves,
      sides: set.sides,
    };
    if (due === was)
      Object.assign(next, {
        load_kg: set.load_kg,
        implements: set.implements,
        unit: set.unit,
      });
    // A pyramid keeps its steps on the other movement, as far as the kit has them.
    else if (swapped)
      Object.assign(next, {
        load_kg: was ? fitting((due * (set.load_kg ?? 0)) / was, loads) : set.load_kg,
        implements: set.implements,
      });
    if (plan.reps != null && plan.reps === here.reps) next.reps = set.reps;
    ahead[at] = next;
  }
  return withOwn(state, run.athlete, { ...mine, ahead });
}

/** Mark a step as done as planned, for all that have not said otherwise and have not stopped. */
export function markDone(state: State, runs: Run[], step: number, lasted?: number): State {
  const own = { ...state.own };
  for (const run of runs) {
    const mine = own[run.athlete];
    const due = wanted(run, state, step);
    if (!mine || mine.stopped || !due || mine.done[step] !== undefined) continue;
    const [set, ...other] = endedEarly(state, step, due.set, lasted);
    const next = withDone(mine, step, set);
    own[run.athlete] = {
      ...next,
      besides: [
        ...other.map((one) => ({ set: one, after: step, otherSide: true })),
        ...next.besides,
      ],
    };
  }
  return { ...state, own };
}

/** Less than a second before its end a set has lasted as long as it should. */
const ON_TIME_S = 1;

/**
 * A set by the clock that somebody ended early: it lasted as long as it did, in seconds. Of two sides
 * that lasted differently each is a set of its own.
 */
function endedEarly(
  state: State,
  step: number,
  set: CoreSet,
  lasted: number | undefined,
): [CoreSet, ...CoreSet[]] {
  const planned = set.seconds;
  if (planned == null) return [set];
  const own = (seconds: number | undefined) =>
    seconds === undefined || seconds > planned - ON_TIME_S
      ? planned
      : Math.max(1, Math.round(seconds));
  const { clock } = state;
  // In a group whose clock has two sides, a set of one is over with the first.
  if (set.sides !== "each") return [{ ...set, seconds: own(clock.other ? clock.first : lasted) }];
  const [first, last] = [own(clock.step === step ? clock.first : undefined), own(lasted)];
  return first === last
    ? [{ ...set, seconds: first }]
    : [
        { ...set, seconds: first, sides: firstSide(state), rest_s: null },
        { ...set, seconds: last, sides: otherSide(state) },
      ];
}

/** A tap says that the step in hand is done: by all, too, who had left it out together. */
export function tapDone(state: State, runs: Run[], step: number, lasted?: number): State {
  const here = runs.filter((run) => !state.own[run.athlete]?.stopped && wanted(run, state, step));
  const leftOut = here.every((run) => state.own[run.athlete]?.done[step] === null);
  const open = leftOut
    ? here.reduce((all, run) => putSet(all, run.athlete, step, undefined), state)
    : state;
  return markDone(open, runs, step, lasted);
}

const isOtherSide = (one: ExtraSet, step: number) => one.otherSide === true && one.after === step;

/** Without the other side of a step's set: what is said of the step now is the whole of it. */
const withoutOther = (mine: Own, step: number): Own => ({
  ...mine,
  besides: mine.besides.filter((one) => !isOtherSide(one, step)),
});

/** The log with a set at a step; in order of the steps, as far as the log is in order itself. */
function withDone(before: Own, step: number, set: CoreSet | null): Own {
  const isOfOne = set?.sides === "left" || set?.sides === "right";
  const mine = isOfOne ? before : withoutOther(before, step);
  const known = mine.done[step] !== undefined;
  const behind = mine.order.findLastIndex((other) => other < step) + 1;
  const order = known ? mine.order : mine.order.toSpliced(behind, 0, step);
  return { ...mine, done: { ...mine.done, [step]: set }, order };
}

/** The log without a step; what is logged behind it stays behind the one before it. */
function withoutDone(own: Own, step: number): Own {
  const mine = withoutOther(own, step);
  const at = mine.order.indexOf(step);
  if (at < 0) return mine;
  const before = mine.order[at - 1] ?? -1;
  const done = Object.fromEntries(
    Object.entries(mine.done).filter(([one]) => Number(one) !== step),
  );
  return {
    ...mine,
    done,
    order: mine.order.toSpliced(at, 1),
    besides: mine.besides.map((one) => (one.after === step ? { ...one, after: before } : one)),
  };
}

/** Put what was done at a step otherwise, for one athlete; `undefined` for nothing said of it yet. */
export function putSet(
  state: State,
  athlete: number,
  step: number,
  set: CoreSet | null | undefined,
): State {
  const mine = state.own[athlete];
  if (!mine) return state;
  return withOwn(
    state,
    athlete,
    set === undefined ? withoutDone(mine, step) : withDone(mine, step, set),
  );
}

const withOwn = (state: State, athlete: number, own: Own): State => ({
  ...state,
  own: { ...state.own, [athlete]: own },
});

/** A set that is being changed: what was said of it, and of the sets to come, before. */
export interface Editing {
  athlete: number;
  step: number;
  done: CoreSet | null | undefined;
  ahead: Record<number, CoreSet>;
  /** Its other side, where that is a set of its own. */
  other: ExtraSet[];
}

export const edit = (state: State, athlete: number, step: number): Editing => ({
  athlete,
  step,
  done: state.own[athlete]?.done[step],
  ahead: state.own[athlete]?.ahead ?? {},
  other: (state.own[athlete]?.besides ?? []).filter((one) => isOtherSide(one, step)),
});

/** The set as it was before it was changed; done as planned, if its time has come meanwhile. */
export function asBefore(state: State, run: Run, { step, done, ahead, other }: Editing): State {
  const mine = state.own[run.athlete];
  if (!mine) return state;
  const base = withOwn(state, run.athlete, { ...withoutOther(mine, step), ahead });
  const passed = done === undefined && mine.done[step] !== undefined;
  const back = putSet(base, run.athlete, step, passed ? wanted(run, base, step)?.set : done);
  const own = back.own[run.athlete];
  if (!own || other.length === 0) return back;
  return withOwn(back, run.athlete, { ...own, besides: [...other, ...own.besides] });
}

/**
 * The set changed, or not done (null); for the sets to come, too, if `further`. A set that is still
 * to be done is only to be done otherwise.
 */
export function changed(
  state: State,
  run: Run,
  editing: Editing,
  set: CoreSet | null,
  further: boolean,
  loads: number[],
): State {
  const { step } = editing;
  let next = asBefore(state, run, editing);
  const mine = next.own[run.athlete];
  if (!mine) return state;
  next =
    set && mine.done[step] === undefined
      ? withOwn(next, run.athlete, { ...mine, ahead: { ...mine.ahead, [step]: set } })
      : putSet(next, run.athlete, step, set);
  return set && further ? carry(next, run, step, set, loads) : next;
}

/** Room for new steps behind one: what is done after them keeps its set, and they are done as the sets before them were to be. */
export function insertSteps(state: State, steps: Step[], behind: number): State {
  const more = steps.length - state.steps.length;
  const to = (step: number) => (step > behind ? step + more : step);
  const moved = <T>(sets: Record<number, T>): Record<number, T> =>
    Object.fromEntries(Object.entries(sets).map(([step, set]) => [to(Number(step)), set]));
  const own = Object.fromEntries(
    Object.entries(state.own).map(([athlete, mine]) => {
      const ahead = moved(mine.ahead);
      for (let at = behind + 1; at <= behind + more; at += 1) {
        const model = steps.findLastIndex(
          (step, before) => before <= behind && step.set === steps[at]?.set,
        );
        const like = ahead[model];
        if (like) ahead[at] = { ...like, rpe: null };
      }
      const order = mine.order.map(to);
      const besides = mine.besides.map((one) => ({ ...one, after: to(one.after) }));
      return [athlete, { ...mine, done: moved(mine.done), order, besides, ahead }];
    }),
  );
  return { ...state, steps, own };
}

/** The step in hand left out by all who have not done it; what one side has done of it stays. */
export function skip(all: State, runs: Run[], now: number): State {
  const { step } = all.clock;
  const state = halfDone(all, runs);
  const left = runs.reduce(
    (all, run) =>
      // Of whoever has stopped nothing is left out: it is open, should they come back.
      all.own[run.athlete]?.done[step] === undefined && !all.own[run.athlete]?.stopped
        ? putSet(all, run.athlete, step, null)
        : all,
    state,
  );
  const last = step >= state.steps.length - 1;
  return {
    ...left,
    clock: last ? { step, phase: "over", since: now, paused: null } : jump(step + 1, now),
  };
}

/** The run broken off where it is. */
export const stopHere = (state: State, runs: Run[], now: number): State => {
  const all = halfDone(state, runs);
  return { ...all, clock: { step: all.clock.step, phase: "over", since: now, paused: null } };
};

/** Of a set of two that is left at its other side the first one, which was done. */
function halfDone(state: State, runs: Run[]): State {
  const { step, phase, other } = state.clock;
  if (phase !== "turn" && !other) return state;
  return runs.reduce((all, run) => {
    const mine = all.own[run.athlete];
    const set = wanted(run, all, step)?.set;
    if (!mine || mine.stopped || mine.done[step] !== undefined || set?.sides !== "each") return all;
    const [first] = endedEarly(all, step, { ...set, sides: firstSide(all) }, all.clock.first);
    return putSet(all, run.athlete, step, first);
  }, state);
}

/** The steps that somebody who has not stopped has still to do, or left out. */
export const openSteps = (state: State, runs: Run[]): number[] =>
  state.steps
    .map((_, step) => step)
    .filter((step) =>
      runs.some((run) => {
        const mine = state.own[run.athlete];
        return mine && !mine.stopped && planned(run, state.steps, step) && !mine.done[step];
      }),
    );

/**
 * A run whose next step is done already, for it was taken before its turn: it goes on at the next that
 * is not, and waits there.
 */
export function pastDone(state: State, runs: Run[], now: number): State {
  if (state.clock.phase === "over") return state;
  const here = inSight(state);
  const isDone = (step: number) =>
    runs.every((run) => {
      const mine = state.own[run.athlete];
      return (
        !mine || mine.stopped || !planned(run, state.steps, step) || mine.done[step] !== undefined
      );
    });
  if (!isDone(here)) return state;
  const next = state.steps.findIndex((_, step) => step > here && !isDone(step));
  return {
    ...state,
    clock:
      next < 0
        ? { step: state.steps.length - 1, phase: "over", since: now, paused: null }
        : jump(next, now),
  };
}

/** An athlete whom something hurts does no more; where nobody is left, the run is over. */
export function stopped(
  before: State,
  runs: Run[],
  athlete: number,
  note: string,
  now: number,
): State {
  const run = runs.find((one) => one.athlete === athlete);
  if (!run) return before;
  const state = halfDone(before, [run]);
  const mine = state.own[athlete];
  if (!mine) return before;
  const exercise = wanted(run, state, state.clock.step)?.set.exercise ?? null;
  const own = {
    ...state.own,
    [athlete]: { ...mine, stopped: true, pain: [...mine.pain, { exercise, note }] },
  };
  const all = runs.every((run) => own[run.athlete]?.stopped);
  return {
    ...state,
    own,
    clock: all ? { ...state.clock, phase: "over", paused: null, since: now } : state.clock,
  };
}

/** A line of the plan that is not read, done or not. */
export function tick(state: State, athlete: number, line: string): State {
  const mine = state.own[athlete];
  if (!mine) return state;
  const before = mine.ticked ?? [];
  const ticked = before.includes(line) ? before.filter((one) => one !== line) : [...before, line];
  return withOwn(state, athlete, { ...mine, ticked });
}

/** The plans of a run that somebody is let into: laid together when it is opened. */
export const JOINING = "joining";

/**
 * A run with everybody who is there now: whoever was let in stands at the step in hand, and what was
 * missed is open. The clock waits until the cautions were read.
 */
export function joined(state: State, runs: Run[], now: number): State {
  const longest = Math.max(0, ...state.steps.map((step) => step.set + 1));
  const more = leader(runs).sets.slice(longest);
  const own = Object.fromEntries(
    runs.map((run) => [run.athlete, state.own[run.athlete] ?? fresh([run], now).own[run.athlete]]),
  ) as State["own"];
  return {
    ...state,
    steps: [...state.steps, ...more.map((_, at) => ({ set: longest + at, extra: false }))],
    own,
    begun: false,
    plans: plansOf(runs),
    clock: state.clock.paused === null ? pause(state.clock, now) : state.clock,
  };
}

/** Somebody who had stopped goes on at the step in hand; what was missed stays open. */
export const goesOn = (state: State, athlete: number): State => {
  const mine = state.own[athlete];
  return mine ? withOwn(state, athlete, { ...mine, stopped: false }) : state;
};

/** One more set behind the one in hand, or one more round behind its round. */
export function oneMoreOf(state: State, runs: Run[]): State {
  const more = oneMore(state.steps, state.clock.step, leader(runs).sets);
  return insertSteps(state, more, lastBefore(state.steps, more));
}

/** The last step that stands before the new ones. */
function lastBefore(before: Step[], after: Step[]): number {
  const more = after.length - before.length;
  let at = 0;
  while (at < before.length && after[at] === before[at]) at += 1;
  return more > 0 ? at - 1 : before.length - 1;
}

/** The run from its start again, in the same log: what was done before stands first in it. */
export function again(state: State, runs: Run[], now: number): State {
  const begun = fresh(
    runs.map((run) => ({ ...run, log: null, log_steps: [] })),
    now,
  );
  const own = Object.fromEntries(
    runs.map((run) => {
      const [mine, first] = [state.own[run.athlete], begun.own[run.athlete]];
      if (!mine || !first) return [run.athlete, first];
      const besides = setsOf(mine).map((set) => ({ set, after: -1 }));
      return [run.athlete, { ...mine, done: {}, order: [], ahead: {}, besides, stopped: false }];
    }),
  ) as State["own"];
  return { ...begun, own, begun: true, startedAt: now };
}

/** The step that stands large on the screen: in a rest the one after it. */
export const inSight = ({ clock, steps }: State): number =>
  clock.phase === "rest" && clock.step + 1 < steps.length ? clock.step + 1 : clock.step;

/** From the start to where the clock stands, in whole minutes; null where nobody knows the start. */
export const minutesOf = ({ clock, startedAt }: State): number | null =>
  startedAt === undefined ? null : Math.round((clock.since - startedAt) / 60_000);

/** The minutes of the clock as those of everybody's session. */
export const keepMinutes = (state: State, minutes: number): State => ({
  ...state,
  own: Object.fromEntries(
    Object.entries(state.own).map(([athlete, mine]) => [athlete, { ...mine, minutes }]),
  ),
});

/** What is logged, in order. */
export function setsOf(mine: Own): CoreSet[] {
  const behind = (step: number) =>
    mine.besides.flatMap((one) => (one.after === step ? one.set : []));
  return [-1, ...mine.order].flatMap((step) => [
    ...[mine.done[step] ?? []].flat(),
    ...behind(step),
  ]);
}

/** How a line that was ticked by hand stands in the notes of the log. */
const noteOf = (line: string) => `Done as written: ${line}`;

/** Lines of a plan that are not read; a run that an older version keeps has none. */
const unreadOf = (run: Partial<Run>): string[] => run.unread ?? [];

/** The notes of a log with what was ticked, and without what was not. */
function withTicked(notes: string, run: Run, ticked: string[]): string {
  const ours = unreadOf(run).map(noteOf);
  const others = notes.split("\n").filter((line) => line && !ours.includes(line));
  return [...others, ...ticked.map(noteOf)].join("\n");
}

/** An athlete's log as it stands. */
export function logOf(run: Run, mine: Own): Session {
  const stored = run.log?.session;
  return {
    date: run.date,
    title: run.title,
    sets: setsOf(mine),
    rpe: stored?.rpe ?? null,
    duration_min: mine.minutes ?? stored?.duration_min ?? null,
    plan: null,
    notes: withTicked(stored?.notes ?? "", run, mine.ticked ?? []),
    pain: mine.pain,
  };
}
