import type { Schemas } from "@/api/client";
import type { Run } from "@/places/floor/run";

type FloorSet = Schemas["FloorSet"];
type CoreSet = Schemas["Set"];

/** What is beyond nothing: of a movement of which nothing is asked. */
export const UNBOUNDED: Schemas["FloorBounds"] = {
  most_kg: null,
  in_hand_kg: null,
  unloaded_kg: 0,
  reps: null,
  loaded_reps: null,
  says: "",
};

/** A set as the book has it. */
export const set = (exercise: string, more: Partial<CoreSet> = {}): CoreSet => ({
  exercise,
  moves: null,
  reps: 8,
  seconds: null,
  load_kg: 0,
  implements: 1,
  sides: "both",
  tempo: null,
  hold_s: 0,
  partial_reps: 0,
  rpe: null,
  warm_up: false,
  rest_s: null,
  part: null,
  measured_reps: null,
  measured_tension_s: null,
  loads: null,
  static: false,
  held: null,
  seconds_to: null,
  rest_to_s: null,
  distance_m: null,
  reps_to: null,
  rpe_to: null,
  percent: null,
  body_percent: null,
  round: null,
  place: null,
  every_s: null,
  clusters: null,
  band: null,
  range: null,
  note: "",
  why: "",
  unit: null,
  for_time: false,
  pre_exhaust: false,
  ...more,
});

/** A set of a plan as the floor is given it. */
export function due(of: CoreSet, more: Partial<FloorSet> = {}): FloorSet {
  return {
    set: of,
    movement: of.exercise ?? "",
    dose: of.seconds ? `${of.seconds} s` : `${of.reps} reps`,
    load: of.load_kg ? `${of.load_kg} kg` : "",
    target: "",
    part: "main",
    round: null,
    rounds: null,
    rest_s: of.rest_s ?? 0,
    seconds: of.seconds ?? null,
    turn_s: of.seconds != null && of.sides === "each" ? 3 : null,
    cycle_s: 3,
    counted: true,
    why: "",
    ...more,
  };
}

/** Sets by the clock, a round after the other: so many seconds of work and of rest each. */
export const circuit = (
  rounds: number,
  names: string[],
  seconds: number,
  rest: number,
): FloorSet[] =>
  Array.from({ length: rounds }, (_, round) =>
    names.map((name) =>
      due(set(name, { reps: null, seconds, rest_s: rest }), { round: round + 1, rounds }),
    ),
  ).flat();

/** Rounds of one counted set that begin on a clock: `rest` is what the plan takes to be left of it. */
export const onTheMark = (rounds: number, every: number, rest: number): FloorSet[] =>
  Array.from({ length: rounds }, (_, round) =>
    due(set("Swing", { reps: 10, every_s: every, rest_s: rest }), { round: round + 1, rounds }),
  );

export const run = (sets: FloorSet[], more: Partial<Run> = {}): Run => ({
  athlete: 1,
  name: "Ada Test",
  plan: 7,
  date: "2026-11-25",
  title: "Legs",
  sets,
  clock: { parts: [], over_min: 0, leave_out: [], fits: true },
  unread: [],
  restrictions: [],
  care: [],
  why: "",
  own_cues: [],
  new_to: [],
  log: null,
  log_steps: [],
  ...more,
});
