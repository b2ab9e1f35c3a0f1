import type { CoreSet, Schemas } from "@/api/client";
import type { Phase } from "./clock";
import type { Run } from "./run";

/** A line of words, under which title it is said, and whether one athlete alone is told it. */
export interface Said {
  title: string;
  says: string;
  own: boolean;
}

/**
 * What is said at a set, in the order in which it is said: what each athlete is told first, then
 * the words of its movements. Of a combination and of a group it is said whose they are.
 */
export function cuesOf(
  set: CoreSet | undefined,
  runs: Run[],
  movements: Schemas["FloorMovement"][],
): Said[] {
  const names = namesOf(set);
  const own = runs.flatMap((run) =>
    ownOf(run)
      .filter((cue) => names.includes(cue.title.toLowerCase()))
      .map((cue) => ({ title: run.name, says: cue.says, own: true })),
  );
  const of = movements.filter((one) => names.includes(one.name.toLowerCase()));
  const words = of.flatMap((one) =>
    wordsOf(one).map((cue) => ({
      ...cue,
      title: of.length > 1 ? `${one.name}: ${cue.title}` : cue.title,
      own: false,
    })),
  );
  return [...own, ...words];
}

// A session that an older version keeps on the device has no words.
const ownOf = (run: Partial<Run>) => run.own_cues ?? [];
const newTo = (run: Partial<Run>) => run.new_to ?? [];
const wordsOf = (one: Partial<Schemas["FloorMovement"]>) => one.cues ?? [];

/** What an athlete is told at a movement; empty where nothing is. */
export const ownCueOf = (run: Run, movement: string): string =>
  ownOf(run).find((cue) => cue.title.toLowerCase() === movement.toLowerCase())?.says ?? "";

const namesOf = (set: CoreSet | undefined): string[] =>
  set
    ? (set.moves ?? [{ exercise: set.exercise ?? "" }]).map((move) => move.exercise.toLowerCase())
    : [];

/** Whether the words stand there unasked: for whoever is new to the movement, or is told something. */
export function areUnasked(set: CoreSet | undefined, runs: Run[]): boolean {
  const names = namesOf(set);
  return runs.some(
    (run) =>
      newTo(run).some((name) => names.includes(name.toLowerCase())) ||
      ownOf(run).some((cue) => names.includes(cue.title.toLowerCase())),
  );
}

/** Which line stands there first: what somebody is told; else how it begins, at work how it goes. */
export function firstOf(said: Said[], phase: Phase): number {
  if (said[0]?.own || (phase !== "work" && phase !== "turn")) return 0;
  return Math.max(
    0,
    said.findIndex((one) => one.title.endsWith("Move")),
  );
}
