import type { Schemas } from "@/api/client";

type FloorSet = Schemas["FloorSet"];

/** Seconds of the count-in before a timed set. */
export const COUNT_IN_S = 5;

/** What the clock shows: waiting for a tap, counting in, working, turning to the other side, resting, or over. */
export type Phase = "ready" | "count-in" | "work" | "turn" | "rest" | "over";

/**
 * The clock of a run. Everything is told from the time at which a phase began, never from counting
 * ticks: a browser that sleeps, or is busy, comes back to the right second.
 */
export interface Clock {
  /** The step in hand: a place in the order of the sets. */
  step: number;
  phase: Phase;
  /** When the phase began, in ms since 1970. */
  since: number;
  /** When it was paused; null while it runs. */
  paused: number | null;
  /** Whether it is the other side of a set of two that works. */
  other?: boolean;
  /** How long its first side lasted in seconds, where it was ended by hand. */
  first?: number;
  /** When the round in hand was to begin, where rounds begin on a clock. */
  mark?: number;
}

/** A step of the run: a set of the plan, and whether it was added as one more round. */
export interface Step {
  set: number;
  extra: boolean;
}

/** Seconds that a timed set lasts, of each side where it is of two; null for a set without a clock. */
export const length = (set: FloorSet | undefined): number | null => set?.seconds ?? null;

/** Whether a set is timed on one side and then on the other. */
export const isOfTwo = (set: FloorSet | undefined): set is FloorSet =>
  length(set) !== null && set?.turn_s != null;

/** Whether a set is begun by the clock: it is timed, or its rounds begin on the mark. */
export const byClock = (set: FloorSet | undefined): boolean =>
  length(set) !== null || set?.set.every_s != null;

const at = (steps: Step[], sets: FloorSet[], step: number) => sets[steps[step]?.set ?? -1];

/** Whether a round begins with a step. */
function beginsRound(step: number, steps: Step[], sets: FloorSet[]): boolean {
  const [before, set] = [at(steps, sets, step - 1), at(steps, sets, step)];
  return (
    before?.round !== set?.round ||
    before?.part !== set?.part ||
    (!steps[step - 1]?.extra && Boolean(steps[step]?.extra))
  );
}

/** When the round that a step begins is due; null where it begins when the one before it is over. */
function dueAt(clock: Clock, step: number, steps: Step[], sets: FloorSet[]): number | null {
  const [before, set] = [at(steps, sets, step - 1), at(steps, sets, step)];
  const every = before?.set.every_s;
  const goesOn = every != null && set?.set.every_s === every && set.part === before?.part;
  if (!goesOn || clock.mark === undefined || !beginsRound(step, steps, sets)) return null;
  return clock.mark + every * 1000;
}

/** Seconds of rest behind the step in hand: to the mark, where the next round is due on one. */
function restOf(clock: Clock, since: number, steps: Step[], sets: FloorSet[]): number {
  const due = dueAt(clock, clock.step + 1, steps, sets);
  return due === null
    ? (at(steps, sets, clock.step)?.rest_s ?? 0)
    : Math.max(0, (due - since) / 1000);
}

/**
 * The clock as a set begins to work. Rounds begin on the mark whatever happened before: one that
 * begins late leaves the marks of the others where they are.
 */
function working(clock: Clock, last: Clock, steps: Step[], sets: FloorSet[]): Clock {
  const every = at(steps, sets, clock.step)?.set.every_s;
  if (every == null) return clock;
  const due = dueAt(last, clock.step, steps, sets);
  const mark =
    due !== null && clock.since - due < every * 1000
      ? due
      : due === null && !beginsRound(clock.step, steps, sets)
        ? (last.mark ?? clock.since)
        : clock.since;
  return { ...clock, mark };
}

/** From so many seconds on it is said that a round began late. */
export const LATE_S = 2;

/** By how many seconds the round in hand began late; 0 within it, and where nothing is due. */
export function late(clock: Clock, steps: Step[], sets: FloorSet[]): number {
  if (clock.phase !== "work" || clock.other || clock.mark === undefined) return 0;
  return beginsRound(clock.step, steps, sets) ? (clock.since - clock.mark) / 1000 : 0;
}

/** How long the phase lasts in seconds; null for one that waits for a tap. */
export function lasts(clock: Clock, steps: Step[], sets: FloorSet[]): number | null {
  const set = at(steps, sets, clock.step);
  switch (clock.phase) {
    case "count-in":
      return COUNT_IN_S;
    case "work":
      return length(set);
    case "turn":
      return set?.turn_s ?? 0;
    case "rest":
      return restOf(clock, clock.since, steps, sets);
    default:
      return null;
  }
}

/** Seconds since the phase began, pauses left out. */
export const elapsed = (clock: Clock, now: number): number =>
  Math.max(0, ((clock.paused ?? now) - clock.since) / 1000);

/** What a step is followed by: rest if there is one, else the next set, by itself if it is timed. */
function after(
  clock: Clock,
  since: number,
  steps: Step[],
  sets: FloorSet[],
  rested: boolean,
): Clock {
  const { step, mark } = clock;
  const last = step >= steps.length - 1;
  if (last) return { step, phase: "over", since, paused: null };
  if (!rested && restOf(clock, since, steps, sets) > 0)
    return { step, phase: "rest", since, paused: null, ...(mark !== undefined && { mark }) };
  const byItself = byClock(at(steps, sets, step)) && byClock(at(steps, sets, step + 1));
  const next: Clock = { step: step + 1, phase: byItself ? "work" : "ready", since, paused: null };
  return byItself ? working(next, clock, steps, sets) : next;
}

/** The clock when a phase of it was over. */
function next(clock: Clock, since: number, steps: Step[], sets: FloorSet[]): Clock {
  const set = at(steps, sets, clock.step);
  switch (clock.phase) {
    case "count-in":
      return working({ ...clock, phase: "work", since }, clock, steps, sets);
    case "work":
      return isOfTwo(set) && !clock.other
        ? { ...clock, phase: "turn", since }
        : after(clock, since, steps, sets, false);
    case "turn":
      return { ...clock, phase: "work", other: true, since };
    default:
      return after(clock, since, steps, sets, true);
  }
}

/** The clock at a time, and the steps that ended by themselves on the way there. */
export function advance(
  clock: Clock,
  now: number,
  steps: Step[],
  sets: FloorSet[],
): { clock: Clock; ended: number[] } {
  const ended: number[] = [];
  let current = clock;
  while (current.paused === null) {
    const seconds = lasts(current, steps, sets);
    if (seconds === null || now < current.since + seconds * 1000) break;
    // The next phase begins when this one was over, not when somebody looked.
    const then = next(current, current.since + seconds * 1000, steps, sets);
    if (current.phase === "work" && then.phase !== "turn") ended.push(current.step);
    current = then;
  }
  return { clock: current, ended };
}

/** Begin the set in hand: with a count-in if it is begun by the clock. */
export const begin = (clock: Clock, now: number, set: FloorSet | undefined): Clock => ({
  ...clock,
  phase: byClock(set) ? "count-in" : "work",
  since: now,
  paused: null,
});

/** The set in hand is done. */
export const finish = (clock: Clock, now: number, steps: Step[], sets: FloorSet[]): Clock =>
  after(clock, now, steps, sets, false);

/** Go on without the rest. */
export function skipRest(clock: Clock, now: number, steps: Step[], sets: FloorSet[]): Clock {
  return after(clock, now, steps, sets, true);
}

/** To another step, waiting for a tap. */
export const jump = (step: number, now: number): Clock => ({
  step,
  phase: "ready",
  since: now,
  paused: null,
});

/** The clock moved by some milliseconds: the phase in hand has lasted as long as before. */
export const shifted = (clock: Clock, by: number): Clock => ({
  ...clock,
  since: clock.since + by,
  paused: clock.paused === null ? null : clock.paused + by,
  ...(clock.mark !== undefined && { mark: clock.mark + by }),
});

export function pause(clock: Clock, now: number): Clock {
  if (clock.paused === null) return { ...clock, paused: now };
  return { ...shifted(clock, now - clock.paused), paused: null };
}

/** The steps with one more round behind the round in hand; one more set where there are no rounds. */
export function oneMore(steps: Step[], at: number, sets: FloorSet[]): Step[] {
  const here = sets[steps[at]?.set ?? -1];
  if (!here) return steps;
  if (here.round === null) {
    const more = { set: steps[at]?.set ?? 0, extra: true };
    return [...steps.slice(0, at + 1), more, ...steps.slice(at + 1)];
  }
  const same = (step: Step | undefined) => {
    const set = step && sets[step.set];
    return set !== undefined && set.part === here.part && set.round !== null;
  };
  let last = at;
  while (
    same(steps[last + 1]) &&
    sets[steps[last + 1]?.set ?? -1]?.round === here.round &&
    !(steps[last + 1]?.extra && !steps[last]?.extra)
  )
    last += 1;
  let first = at;
  while (
    same(steps[first - 1]) &&
    sets[steps[first - 1]?.set ?? -1]?.round === here.round &&
    steps[first - 1]?.extra === steps[at]?.extra
  )
    first -= 1;
  const round = steps.slice(first, last + 1).map((step) => ({ set: step.set, extra: true }));
  return [...steps.slice(0, last + 1), ...round, ...steps.slice(last + 1)];
}

/** `1:05` of seconds that are left, rounded up; of seconds gone, rounded down. */
export function face(seconds: number, left: boolean): string {
  const whole = left ? Math.ceil(seconds - 1e-3) : Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** What the one large button does: its words, and what is to happen. */
export interface NextAct {
  says: string;
  does: "resume" | "begin" | "turn" | "finish" | "skip rest" | "start";
}

/** The one thing that comes now. A set without a clock is begun only where a sensor watches it. */
export function nextAct(
  clock: Clock,
  set: FloorSet | undefined,
  sensing: boolean,
  asIs: string,
): NextAct {
  if (clock.paused !== null) return { says: "Resume", does: "resume" };
  switch (clock.phase) {
    case "ready":
      if (byClock(set)) return { says: "Start the clock", does: "begin" };
      return sensing ? { says: "Start the set", does: "begin" } : { says: asIs, does: "finish" };
    case "work":
      if (isOfTwo(set) && !clock.other) return { says: "Change sides", does: "turn" };
      // By itself it ends as planned.
      return { says: length(set) === null ? asIs : "End it early", does: "finish" };
    case "rest":
      return { says: "Skip the rest", does: "skip rest" };
    default:
      return { says: "Start now", does: "start" };
  }
}

/** The clock after that act; the set that is done is another matter. */
export function acted(
  clock: Clock,
  does: NextAct["does"],
  now: number,
  steps: Step[],
  sets: FloorSet[],
): Clock {
  switch (does) {
    case "resume":
      return pause(clock, now);
    case "begin":
      return begin(clock, now, at(steps, sets, clock.step));
    case "turn":
      return { ...clock, phase: "turn", since: now, first: elapsed(clock, now) };
    case "finish":
      return finish(clock, now, steps, sets);
    case "skip rest":
      return skipRest(clock, now, steps, sets);
    case "start":
      return next(clock, now, steps, sets);
  }
}
