import { describe, expect, it } from "vitest";
import {
  type Clock,
  COUNT_IN_S,
  type Step,
  acted,
  advance,
  begin,
  elapsed,
  face,
  finish,
  jump,
  lasts,
  late,
  length,
  oneMore,
  pause,
  skipRest,
} from "@/places/floor/clock";
import { circuit, due, onTheMark, set } from "./build";

const START = 1_800_000_000_000;
const steps = (count: number): Step[] =>
  Array.from({ length: count }, (_, at) => ({ set: at, extra: false }));
const at = (seconds: number) => START + seconds * 1000;
const ready = (step = 0): Clock => jump(step, START);

describe("rounds on a clock", () => {
  const sets = onTheMark(4, 60, 45);
  const order = steps(sets.length);
  const started = advance(begin(ready(), START, sets[0]), at(COUNT_IN_S), order, sets).clock;

  it("begin on the mark, whatever happened before", () => {
    // Ten seconds of work, then forty, then one that runs over by eight: the fourth is on its mark.
    let clock = started;
    const begins: number[] = [];
    for (const seconds of [10, 40, 68]) {
      clock = finish(clock, clock.since + seconds * 1000, order, sets);
      while (clock.phase === "rest")
        clock = advance(
          clock,
          clock.since + (lasts(clock, order, sets) ?? 0) * 1000,
          order,
          sets,
        ).clock;
      begins.push((clock.since - at(COUNT_IN_S)) / 1000);
    }
    expect(begins).toEqual([60, 120, 188]);
    expect(late(clock, order, sets)).toBe(8);
    expect(clock.mark).toBe(at(COUNT_IN_S + 180));
  });

  it("keep their marks over a pause, and lose them where somebody goes elsewhere", () => {
    const paused = pause(pause(started, at(20)), at(50));
    expect(paused.mark).toBe(at(COUNT_IN_S + 30));
    expect(jump(2, START).mark).toBeUndefined();
    // More than a whole round late: it begins anew from there.
    const lost = finish(started, at(COUNT_IN_S + 130), order, sets);
    expect([lost.phase, late(lost, order, sets)]).toEqual(["work", 0]);
  });
});

describe("a circuit by the clock", () => {
  const sets = circuit(3, ["Squat", "Row"], 40, 20);
  const order = steps(sets.length);
  const started = begin(ready(), START, sets[0]);

  it("counts in, works, rests, and goes on by itself", () => {
    const seen = [0, 4.9, 5, 44.9, 45, 64.9, 65].map(
      (seconds) => advance(started, at(seconds), order, sets).clock,
    );
    expect(seen.map((one) => `${one.phase} ${one.step}`)).toEqual([
      "count-in 0",
      "count-in 0",
      "work 0",
      "work 0",
      "rest 0",
      "rest 0",
      "work 1",
    ]);
  });

  it("tells which sets ended on the way, each once", () => {
    expect(advance(started, at(COUNT_IN_S + 60 + 60 + 39), order, sets).ended).toEqual([0, 1]);
    const over = advance(started, at(10_000), order, sets);
    expect(over.ended).toEqual([0, 1, 2, 3, 4, 5]);
    expect(over.clock.phase).toBe("over");
  });

  it("is at the same second however often, and when, it is looked at", () => {
    // Looks at made-up, uneven times: a browser that is busy, or asleep for minutes.
    let seed = 42;
    const chance = () => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) / 2 ** 31;
    for (let turn = 0; turn < 200; turn += 1) {
      let clock = started;
      const ended: number[] = [];
      let now = 0;
      const until = chance() * 400;
      while (now < until) {
        now = Math.min(until, now + chance() * (turn % 2 ? 0.3 : 90));
        const next = advance(clock, at(now), order, sets);
        clock = next.clock;
        ended.push(...next.ended);
      }
      const once = advance(started, at(until), order, sets);
      expect(clock).toEqual(once.clock);
      expect(ended).toEqual(once.ended);
    }
  });

  it("begins each phase when the one before was over, to the millisecond", () => {
    const { clock } = advance(started, at(5 + 60 * 3 + 10.4), order, sets);
    expect(clock.since).toBe(at(5 + 60 * 3));
    expect(elapsed(clock, at(5 + 60 * 3 + 10.4))).toBeCloseTo(10.4, 6);
  });

  it("stands still while it is paused, and takes up where it was", () => {
    const working = advance(started, at(15), order, sets).clock;
    const held = pause(working, at(20));
    expect(advance(held, at(5000), order, sets).clock).toBe(held);
    expect(elapsed(held, at(5000))).toBe(15);
    const again = pause(held, at(5000));
    expect(again.paused).toBeNull();
    expect(elapsed(again, at(5000))).toBe(15);
    expect(advance(again, at(5024.9), order, sets).clock.phase).toBe("work");
    expect(advance(again, at(5025), order, sets).clock.phase).toBe("rest");
  });

  it("goes on without the rest, and ends after the last set without one", () => {
    const resting = advance(started, at(50), order, sets).clock;
    expect(skipRest(resting, at(50), order, sets)).toEqual({
      step: 1,
      phase: "work",
      since: at(50),
      paused: null,
    });
    const last = { ...ready(5), phase: "work" as const };
    expect(finish(last, at(3), order, sets).phase).toBe("over");
  });
});

describe("sets for reps", () => {
  const sets = [
    due(set("Press", { rest_s: 90 })),
    due(set("Press", { rest_s: 90 })),
    due(set("Plank", { reps: null, seconds: 30 })),
  ];
  const order = steps(3);

  it("wait for a tap, and rest by the clock", () => {
    expect(length(sets[0])).toBeNull();
    const working = begin(ready(), START, sets[0]);
    expect(working.phase).toBe("work");
    expect(advance(working, at(9999), order, sets).clock).toEqual(working);
    const resting = finish(working, at(40), order, sets);
    expect([resting.phase, lasts(resting, order, sets)]).toEqual(["rest", 90]);
    // The next is for reps: it waits. So does a timed one behind it, for nobody is in place yet.
    expect(advance(resting, at(131), order, sets).clock.phase).toBe("ready");
    const before = finish({ ...ready(1), phase: "work" }, START, order, sets);
    expect(advance(before, at(91), order, sets).clock).toMatchObject({ step: 2, phase: "ready" });
  });

  it("are two bouts on each side, with a pause to turn", () => {
    const plank = due(set("Side plank", { reps: null, seconds: 30, sides: "each", rest_s: 20 }));
    const two = [plank, plank];
    const begun = begin(ready(), START, plank);
    const seen = [5, 34, 35, 37.9, 38, 67.9, 68].map((seconds) => {
      const { clock } = advance(begun, at(seconds), steps(2), two);
      return `${clock.phase}${clock.other ? " other" : ""}`;
    });
    const of = ["work", "work", "turn", "turn", "work other", "work other", "rest"];
    expect(seen).toEqual(of);
    expect(advance(begun, at(67.9), steps(2), two).ended).toEqual([]);
    expect(advance(begun, at(68), steps(2), two).ended).toEqual([0]);
    // Turned by hand, and begun before the pause was over.
    const turned = acted({ ...begun, phase: "work" }, "turn", at(12), steps(2), two);
    expect(turned).toMatchObject({ phase: "turn", first: 12 });
    expect(acted(turned, "start", at(13), steps(2), two)).toMatchObject({
      phase: "work",
      other: true,
    });
    expect(length(due(set("Lunge", { reps: null, seconds: 30, sides: "alternating" })))).toBe(30);
  });

  it("show no time where nothing runs", () => {
    expect(lasts(ready(), order, sets)).toBeNull();
    expect(lasts({ ...ready(), phase: "over" }, order, sets)).toBeNull();
    expect(elapsed(ready(), START - 500)).toBe(0);
  });
});

describe("one more", () => {
  const sets = circuit(2, ["Squat", "Row"], 40, 20);

  it("round comes behind the round in hand, wherever in it one stands", () => {
    for (const here of [2, 3]) {
      const more = oneMore(steps(4), here, sets);
      expect(more.map((step) => step.set)).toEqual([0, 1, 2, 3, 2, 3]);
      expect(more.map((step) => step.extra)).toEqual([false, false, false, false, true, true]);
    }
    expect(oneMore(steps(4), 0, sets).map((step) => step.set)).toEqual([0, 1, 0, 1, 2, 3]);
  });

  it("round can be asked for again from within the one on top", () => {
    const once = oneMore(steps(4), 3, sets);
    expect(oneMore(once, 5, sets).map((step) => step.set)).toEqual([0, 1, 2, 3, 2, 3, 2, 3]);
  });

  it("set where there are no rounds", () => {
    const plain = [due(set("Press")), due(set("Row"))];
    expect(oneMore(steps(2), 0, plain)).toEqual([
      { set: 0, extra: false },
      { set: 0, extra: true },
      { set: 1, extra: false },
    ]);
    expect(oneMore([], 0, plain)).toEqual([]);
  });
});

it.each([
  [65, true, "1:05"],
  [64.2, true, "1:05"],
  [0.4, true, "0:01"],
  [0, true, "0:00"],
  [64.9, false, "1:04"],
  [3600, false, "60:00"],
])("%d s are shown as a person reads them", (seconds, left, text) => {
  expect(face(seconds, left)).toBe(text);
});
