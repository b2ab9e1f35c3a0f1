import type { CoreSet, Schemas } from "@/api/client";
import { weight } from "@/words";

/**
 * Rules of the job that Floor needs without a connection. The core has them, too: fixtures that it
 * writes (`scripts/fixtures.py`) hold the two together.
 */

/** Within this a load is the one that the kit has: a pair in pounds, written in kilograms. */
const TOLERANCE_KG = 0.05;

/** The heaviest of rising loads that is not above one; null where all are. */
export function atOrBelow(load: number, loads: number[]): number | null {
  return loads.findLast((one) => one <= load + 1e-9) ?? null;
}

/**
 * The load that the kit has at or below one; any load where nothing is known of the kit. Help, a
 * negative load, is not of its loads, and stays.
 */
export function fitting(load: number, loads: number[]): number {
  if (load < 0 || loads.length === 0 || loads.some((one) => Math.abs(one - load) <= TOLERANCE_KG))
    return load;
  return atOrBelow(load, loads) ?? loads[0] ?? 0;
}

/** What stands for a planned set when it was done as planned, without what only a plan says. */
export const asPlanned = (set: CoreSet): CoreSet => ({ ...set, reps_to: null, note: "", why: "" });

/** What a set has too much of to be likely, and what is asked. */
export interface Beyond {
  of: "reps" | "load";
  says: string;
}

/**
 * What is asked of a set beyond what is likely of its movement; null of one that is not. A session
 * that an older version keeps on the device has no bounds.
 */
export function beyond(set: CoreSet, bounds: Schemas["FloorBounds"] | undefined): Beyond | null {
  if (!bounds) return null;
  const load = set.load_kg ?? 0;
  const moved = bounds.unloaded_kg + load * (set.implements ?? 1);
  const heavy =
    (bounds.most_kg !== null && moved > bounds.most_kg) ||
    (bounds.in_hand_kg !== null && load > bounds.in_hand_kg);
  const most = load > 0 ? bounds.loaded_reps : bounds.reps;
  if (most !== null && set.reps != null && set.seconds == null && set.reps > most)
    return { of: "reps", says: `${set.reps} reps in a set: is that right?` };
  return heavy && load > 0 ? { of: "load", says: `${weight(load)} ${bounds.says}` } : null;
}
