import type { Schemas } from "@/api/client";

type FloorSet = Schemas["FloorSet"];

/** Seconds of the count-in before a timed set. */
export const COUNT_IN_S = 5;

/** What the clock shows: waiting for a tap, counting in, working, resting, or over. */
export type Phase = "ready" | "count-in" | "work" | "rest" | "over";

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
}

/** A step of the run: a set of the plan, and whether it was added as one more round. */
export interface Step {
  set: number;
  extra: boolean;
}

/** Seconds that a timed set lasts, both sides one after the other; null for a set without a clock. */
export function length(set: FloorSet | undefined): number | null {
  if (!set || set.seconds === null) return null;
  return set.set.sides === "each" ? set.seconds * 2 : set.seconds;
}

/** How long the phase lasts in seconds; null for one that waits for a tap. */
export function lasts(clock: Clock, steps: Step[], sets: FloorSet[]): number | null {
  const set = sets[steps[clock.step]?.set ?? -1];
  switch (clock.phase) {
    case "count-in":
      return COUNT_IN_S;
    case "work":
      return length(set);
    case "rest":
      return set?.rest_s ?? 0;
    default:
      return null;
  }
}

/** Seconds since the phase began, pauses left out. */
export const elapsed = (clock: Clock, now: number): number =>
  Math.max(0, ((clock.paused ?? now) - clock.since) / 1000);

/** What a step is followed by: rest if there is one, else the next set, by itself if it is timed. */
function after(step: number, at: number, steps: Step[], sets: FloorSet[], rested: boolean): Clock {
  const set = sets[steps[step]?.set ?? -1];
  const last = step >= steps.length - 1;
  if (!rested && set && set.rest_s > 0 && !last)
    return { step, phase: "rest", since: at, paused: null };
  if (last) return { step, phase: "over", since: at, paused: null };
  const next = sets[steps[step + 1]?.set ?? -1];
  return {
    step: step + 1,
    phase: length(next) === null || length(set) === null ? "ready" : "work",
    since: at,
    paused: null,
  };
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
    const at = current.since + seconds * 1000;
    if (current.phase === "count-in") current = { ...current, phase: "work", since: at };
    else if (current.phase === "work") {
      ended.push(current.step);
      current = after(current.step, at, steps, sets, false);
    } else current = after(current.step, at, steps, sets, true);
  }
  return { clock: current, ended };
}

/** Begin the set in hand: with a count-in if it runs by the clock. */
export const begin = (clock: Clock, now: number, set: FloorSet | undefined): Clock => ({
  ...clock,
  phase: length(set) === null ? "work" : "count-in",
  since: now,
  paused: null,
});

/** The set in hand is done. */
export const finish = (clock: Clock, now: number, steps: Step[], sets: FloorSet[]): Clock =>
  after(clock.step, now, steps, sets, false);

/** Go on without the rest. */
export function skipRest(clock: Clock, now: number, steps: Step[], sets: FloorSet[]): Clock {
  return after(clock.step, now, steps, sets, true);
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
  does: "resume" | "begin" | "finish" | "skip rest" | "start";
}

/** The one thing that comes now. A set without a clock is begun only where a sensor watches it. */
export function nextAct(clock: Clock, isTimed: boolean, sensing: boolean, asIs: string): NextAct {
  if (clock.paused !== null) return { says: "Resume", does: "resume" };
  switch (clock.phase) {
    case "ready":
      if (isTimed) return { says: "Start the clock", does: "begin" };
      return sensing ? { says: "Start the set", does: "begin" } : { says: asIs, does: "finish" };
    case "work":
      return { says: asIs, does: "finish" };
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
      return begin(clock, now, sets[steps[clock.step]?.set ?? -1]);
    case "finish":
      return finish(clock, now, steps, sets);
    case "skip rest":
      return skipRest(clock, now, steps, sets);
    case "start":
      return { ...clock, phase: "work", since: now };
  }
}
