import { describe, expect, it } from "vitest";
import { callAt, spoken } from "@/places/floor/calls";
import { type Clock, advance, begin, finish, jump } from "@/places/floor/clock";
import { type Run, type State, fresh, turnedAround } from "@/places/floor/run";
import { circuit, due, onTheMark, run, set } from "./build";

const START = 1_800_000_000_000;

/** A run of which the cautions were read, its clock as it is given. */
const going = (runs: Run[], clock?: Partial<Clock>): State => {
  const state = fresh(runs, START);
  return { ...state, begun: true, clock: { ...state.clock, ...clock } };
};

/** All that is called from a moment on, second by second, as the page looks: what is said once. */
function heard(runs: Run[], state: State, seconds: number): string[] {
  const calls: string[] = [];
  let key = "";
  let { clock } = state;
  for (let tick = 0; tick <= seconds * 4; tick += 1) {
    const now = START + tick * 250;
    clock = advance(clock, now, state.steps, runs[0]?.sets ?? []).clock;
    const call = callAt({ ...state, clock }, runs, now);
    if (call && call.key !== key) {
      key = call.key;
      calls.push([call.tone, call.says].filter(Boolean).join(": "));
    }
  }
  return calls.filter(Boolean);
}

describe("a circuit by the clock", () => {
  const runs = [run(circuit(2, ["Squat", "Row"], 40, 30))];
  const state = going(runs);

  it("is called so that nobody has to look", () => {
    const begun = { ...state, clock: begin(state.clock, START, runs[0]?.sets[0]) };
    expect(heard(runs, begun, 80)).toEqual([
      "Round 1 of 2. Squat, 40 seconds. In 5.",
      "count",
      "count",
      "count",
      "start: Go",
      "half: Halfway",
      "Ten seconds",
      "count",
      "count",
      "count",
      "end: Rest 30 seconds, then: Row, 40 seconds.",
      "Ten seconds",
      "count",
      "count",
      "count",
      "start: Go",
    ]);
  });

  it("says the round where it begins, and which one is the last", () => {
    const rest = (step: number) =>
      callAt(going(runs, { step, phase: "rest" }), runs, START)?.says ?? "";
    expect(rest(1)).toBe("Rest 30 seconds, then: Round 2 of 2. Squat, 40 seconds.");
    expect(rest(2)).toBe("Rest 30 seconds, then: Last one. Row, 40 seconds.");
  });

  it("ends with a word", () => {
    expect(callAt(going(runs, { step: 3, phase: "over" }), runs, START)?.says).toBe(
      "Well done. Write it down.",
    );
  });
});

const COUNTS = ["count", "count", "count"];

describe("each side by the clock", () => {
  const runs = [run([due(set("Side plank", { reps: null, seconds: 20, sides: "each" }))])];

  it("calls each side by name, and the change between them with a tone of its own", () => {
    const side = (name: string) => [`start: Go, ${name}`, "half: Halfway", ...COUNTS];
    expect(heard(runs, going(runs, { phase: "work" }), 42)).toEqual([
      ...side("left"),
      "side: Change sides: right",
      ...side("right"),
    ]);
    const right = turnedAround(going(runs, { phase: "work" }));
    expect(heard(runs, right, 21).at(-1)).toBe("side: Change sides: left");
  });
});

describe("rounds on the mark", () => {
  const runs = [run(onTheMark(3, 60, 40))];

  it("are called late where they are", () => {
    const { steps } = going(runs);
    const sets = runs[0]?.sets ?? [];
    const first = { ...begin(jump(0, START), START, sets[0]), phase: "work" as const, mark: START };
    const clock = finish(first, START + 68_000, steps, sets);
    expect(callAt(going(runs, clock), runs, START + 68_000)?.says).toBe("Go, 8 seconds late");
  });
});

describe("sets without a clock", () => {
  const squat = due(set("Squat", { reps: 5, load_kg: 57.5, rest_s: 90 }));
  const alone = [run([squat, squat])];

  it("are called with what is on the bar", () => {
    expect(callAt(going(alone), alone, START)?.says).toBe("Squat, 5 reps, at 57.5 kilos.");
    expect(callAt(going(alone, { phase: "rest" }), alone, START)?.says).toBe(
      "Rest 90 seconds, then: Last one. Squat, 5 reps, at 57.5 kilos.",
    );
  });

  it("are called without a load in a group, for everybody has their own", () => {
    const two = [...alone, { ...run([squat, squat]), athlete: 2 }];
    expect(callAt(going(two), two, START)?.says).toBe("Squat.");
  });

  it("are silent while they are done, before the cautions are read, and while paused", () => {
    const work = callAt(going(alone, { phase: "work" }), alone, START);
    expect([work?.tone, work?.says]).toEqual([null, ""]);
    expect(callAt(fresh(alone, START), alone, START)).toBeNull();
    expect(callAt(going(alone, { ...jump(0, START), paused: START }), alone, START)).toBeNull();
  });
});

it("says signs as they are said", () => {
  expect(spoken("8–10 reps, at 2 × 12.5 kg")).toBe("8 to 10 reps, at 2 times 12.5 kilos");
  expect(spoken("1:30, RPE 8")).toBe("1 minute 30 seconds, R P E 8");
  expect(spoken("0:40 at 25 lb")).toBe("40 seconds at 25 pounds");
});
