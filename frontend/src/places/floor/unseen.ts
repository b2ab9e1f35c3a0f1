import type { Schemas } from "@/api/client";
import { type Clock, advance, shifted } from "./clock";
import { type Run, type State, leader, markDone } from "./run";

/*
 * What nobody saw is not done. A page that is hidden, a device that sleeps, a clock that is set:
 * the time then passed without anybody at the clock, and a set that would have ended in it is asked
 * about.
 */

/** When somebody last looked: by the clock on the wall, and by one that nobody can set. */
export interface Look {
  wall: number;
  mono: number;
}

/** Two looks that lie no further apart have all between them seen; tones count that long. */
export const LAPSE_MS = 3000;

/** Time that nobody saw, in which sets would have ended or begun by the clock. */
export interface Unseen {
  from: number;
  to: number;
  /** The steps that would have ended. */
  ended: number[];
}

export const lookNow = (): Look => ({ wall: Date.now(), mono: performance.now() });

/** How the time between two looks passed. */
export function lapse(before: Look, now: Look): "seen" | "unseen" | "set back" {
  const [wall, mono] = [now.wall - before.wall, now.mono - before.mono];
  // By less than that nobody's set gets longer.
  if (wall < mono - LAPSE_MS / 3) return "set back";
  return wall > LAPSE_MS || mono > LAPSE_MS ? "unseen" : "seen";
}

type Sets = Schemas["FloorSet"][];

/** The clock where it was set back: the phase in hand goes on as if it had not been. */
export const setBack = (clock: Clock, before: Look, now: Look): Clock =>
  shifted(clock, now.wall - before.wall - (now.mono - before.mono));

/** What would have ended, or begun, while nobody looked; null where nothing is to be asked. */
export function unseenIn(
  clock: Clock,
  from: number,
  to: number,
  steps: State["steps"],
  sets: Sets,
) {
  const { clock: then, ended } = advance(clock, to, steps, sets);
  const began = then.phase === "work" && (clock.phase !== "work" || then.step !== clock.step);
  return ended.length > 0 || began ? { from, to, ended } : null;
}

/** Hold the clock where somebody last looked, until it is said what was done since. */
export const hold = (state: State, unseen: Unseen): State => ({
  ...state,
  unseen,
  clock: { ...state.clock, paused: unseen.from },
});

/** It was done all the same: the sets are as planned, and the clock is where it would be. */
export function seenAfterAll(state: State, runs: Run[], now: number): State {
  const { unseen } = state;
  if (!unseen) return state;
  const sets = leader(runs).sets;
  const running = { ...state.clock, paused: null };
  const { clock, ended } = advance(running, unseen.to, state.steps, sets);
  const done = ended.reduce((all, step) => markDone(all, runs, step), state);
  return { ...done, unseen: null, clock: shifted(clock, now - unseen.to) };
}

/** It was not done: the clock goes on from where somebody last looked. */
export function notDone(state: State, now: number): State {
  const { unseen } = state;
  if (!unseen) return state;
  return {
    ...state,
    unseen: null,
    clock: shifted({ ...state.clock, paused: null }, now - unseen.from),
  };
}
