import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { act } from "@/places/floor/acts";
import { elapsed, jump, oneMore } from "@/places/floor/clock";
import {
  JOINING,
  type Run,
  type State,
  again,
  asBefore,
  carry,
  changed,
  edit,
  fresh,
  goesOn,
  insertSteps,
  joined,
  leader,
  logOf,
  markDone,
  openSteps,
  plansOf,
  putSet,
  setsOf,
  skip,
  stopHere,
  stopped,
  tapDone,
  tick,
  toCome,
  together,
  told,
  turnedAround,
  wanted,
} from "@/places/floor/run";
import { fitting } from "@/shared/coreRules";
import { hold, lapse, notDone, seenAfterAll, setBack, unseenIn } from "@/places/floor/unseen";
import { UNBOUNDED, circuit, due, run, set } from "./build";

const NOW = 1_800_000_000_000;
const names = (state: State, athlete = 1) =>
  Object.values(state.own[athlete]?.done ?? {}).map((one) => one?.exercise ?? null);

function of<T>(value: T | undefined | null): T {
  if (value === undefined || value === null) throw new Error("nothing there");
  return value;
}

describe("a run", () => {
  const pyramid = run([
    due(set("Squat", { reps: 5, load_kg: 40, warm_up: true })),
    due(set("Squat", { reps: 5, load_kg: 60 })),
    due(set("Squat", { reps: 5, load_kg: 80 })),
    due(set("Row")),
  ]);

  it("begins at its first set, with an id of its own", () => {
    const [a, b] = [fresh([pyramid], NOW), fresh([pyramid], NOW)];
    expect(a.clock).toEqual({ step: 0, phase: "ready", since: NOW, paused: null });
    expect(a.own[1]?.id).not.toBe(b.own[1]?.id);
  });

  it("goes on behind what is logged of it, and keeps what the log has besides", () => {
    const stored = [set("Squat", { reps: 4 }), set("Squat"), set("Curl")];
    const log: Schemas["LogOut"] = {
      client_id: "row-9",
      revision: 3,
      session: {
        date: "2026-11-25",
        title: "Legs",
        sets: stored,
        rpe: 8,
        duration_min: null,
        plan: null,
        notes: "n",
        pain: [],
      },
    };
    const known = { ...pyramid, log, log_steps: [0, 1, null] };
    const state = fresh([known], NOW);
    expect(state.clock.step).toBe(2);
    const next = markDone(state, [known], 2);
    const session = logOf(known, of(next.own[1]));
    expect(session.sets.map((one) => one.exercise)).toEqual(["Squat", "Squat", "Curl", "Squat"]);
    expect([session.sets[0]?.reps, session.rpe, session.notes]).toEqual([4, 8, "n"]);
    expect(next.own[1]).toMatchObject({ id: "row-9", revision: 3 });
  });

  it("knows whether its plan was written anew", () => {
    const again = run(pyramid.sets.map((one) => ({ ...one, set: { ...one.set } })));
    expect(plansOf([again])).toBe(plansOf([pyramid]));
    expect(plansOf([run(pyramid.sets.slice(1))])).not.toBe(plansOf([pyramid]));
    expect(plansOf([run([due(set("Squat", { reps: 6 })), ...pyramid.sets.slice(1)])])).not.toBe(
      plansOf([pyramid]),
    );
    expect(fresh([pyramid], NOW).plans).toBe(plansOf([pyramid]));
  });

  it("is over where all of it is logged", () => {
    const log: Schemas["LogOut"] = {
      client_id: "x",
      revision: 1,
      session: {
        date: "2026-11-25",
        title: "",
        sets: [set("Row")],
        rpe: null,
        duration_min: null,
        plan: null,
        notes: "",
        pain: [],
      },
    };
    expect(fresh([run([due(set("Row"))], { log, log_steps: [0] })], NOW).clock.phase).toBe("over");
  });

  it("marks a set as planned once: what was said before stays, what was skipped stays out", () => {
    let state = putSet(fresh([pyramid], NOW), 1, 1, set("Squat", { reps: 3 }));
    state = markDone(putSet(state, 1, 0, null), [pyramid], 0);
    state = markDone(state, [pyramid], 1);
    expect(logOf(pyramid, of(state.own[1])).sets.map((one) => one.reps)).toEqual([3]);
  });

  it("leaves out what only a plan says of a set", () => {
    const ranged = run([due(set("Row", { reps_to: 12, note: "slow" }))]);
    const state = markDone(fresh([ranged], NOW), [ranged], 0);
    expect(of(state.own[1]?.done[0])).toMatchObject({ reps_to: null, note: "" });
  });
});

describe("what is kept of a run", () => {
  const plan = [due(set("Squat")), due(set("Squat")), due(set("Row")), due(set("Press"))];
  const four = run(plan);
  const logged = (sets: Schemas["Set"][], log_steps: (number | null)[]) =>
    run(plan, {
      log: {
        client_id: "x",
        revision: 1,
        session: { ...logOf(four, of(fresh([four], NOW).own[1])), sets },
      },
      log_steps,
    });
  const log = (state: State, one = four) =>
    logOf(one, of(state.own[1])).sets.map((each) => each.exercise);

  it("keeps the order of the log behind a swap, whatever is done after it", () => {
    const swapped = logged([set("Squat"), set("Lunge"), set("Curl")], [0, 1, null]);
    const state = fresh([swapped], NOW);
    expect(state.clock.step).toBe(2);
    const next = markDone(markDone(state, [swapped], 2), [swapped], 3);
    expect(log(next, swapped)).toEqual(["Squat", "Lunge", "Curl", "Row", "Press"]);
  });

  it("goes on where somebody came late, and what was left out stays left out", () => {
    const late = logged([set("Row")], [2]);
    const state = fresh([late], NOW);
    expect(state.clock.step).toBe(3);
    expect(log(markDone(state, [late], 3), late)).toEqual(["Row", "Press"]);
    // What is done late all the same stands where the plan has it.
    expect(log(markDone(state, [late], 0), late)).toEqual(["Squat", "Row"]);
  });

  it("keeps a log that was done in another order", () => {
    const other = logged([set("Press"), set("Squat")], [3, 0]);
    expect(log(markDone(fresh([other], NOW), [other], 1), other)).toEqual([
      "Press",
      "Squat",
      "Squat",
    ]);
  });

  it("takes a set that was skipped and is tapped all the same as done", () => {
    const skipped = skip(fresh([four], NOW), [four], NOW);
    expect(skipped.own[1]?.done[0]).toBeNull();
    expect(log(tapDone(skipped, [four], 0))).toEqual(["Squat"]);
    // In a group, what one alone left out stays left out.
    const other = { ...four, athlete: 2, name: "Bo" };
    const one = putSet(fresh([four, other], NOW), 1, 0, null);
    const tapped = tapDone(one, [four, other], 0);
    expect([tapped.own[1]?.done[0], tapped.own[2]?.done[0]?.exercise]).toEqual([null, "Squat"]);
  });

  it("keeps of a timed set that was ended early what it lasted", () => {
    const timed = run([due(set("Plank", { reps: null, seconds: 40 }))]);
    const seconds = (one: Run, lasted?: number) =>
      tapDone(fresh([one], NOW), [one], 0, lasted).own[1]?.done[0]?.seconds;
    expect([25.2, 0.1, 39.4, undefined].map((lasted) => seconds(timed, lasted))).toEqual([
      25, 1, 40, 40,
    ]);
  });

  it("keeps each side of a set of two as it was", () => {
    const each = run([
      due(set("Side plank", { reps: null, seconds: 40, sides: "each", rest_s: 30 })),
      due(set("Squat")),
    ]);
    const kept = (
      first: number | undefined,
      lasted: number | undefined,
      from = fresh([each], NOW),
    ) => {
      const state = { ...from, clock: { ...from.clock, ...(first && { first }) } };
      const own = tapDone(state, [each], 0, lasted).own[1];
      return own ? setsOf(own).map((one) => `${one.sides} ${one.seconds}`) : [];
    };
    expect(kept(undefined, undefined)).toEqual(["each 40"]);
    expect(kept(25, 25.3)).toEqual(["each 25"]);
    expect(kept(undefined, 12)).toEqual(["left 40", "right 12"]);
    expect(kept(30, undefined, turnedAround(fresh([each], NOW)))).toEqual(["right 30", "left 40"]);
    // What is said of the set afterwards is said of all of it.
    const both = tapDone(fresh([each], NOW), [each], 0, 12);
    expect(log(putSet(both, 1, 0, null))).toEqual([]);
    expect(log(putSet(both, 1, 0, undefined))).toEqual([]);
    // A choice that is taken back brings both sides back.
    const editing = edit(both, 1, 0);
    const chosen = changed(
      both,
      each,
      editing,
      set("Side plank", { seconds: 20, sides: "each" }),
      false,
      [],
    );
    expect(of(chosen.own[1]).besides).toEqual([]);
    expect(asBefore(chosen, each, editing).own[1]).toEqual(both.own[1]);
    // Laid out again from the log, they are one step's, each once.
    const stored = setsOf(of(both.own[1]));
    const logged = { client_id: "a", revision: 1, session: { ...logOf(each, of(both.own[1])) } };
    const again = fresh([{ ...each, log: logged, log_steps: [0, 0] }], NOW);
    expect(setsOf(of(again.own[1]))).toEqual(stored);
    // Broken off at the other side, by hand or by pain: the first one was done.
    const half = {
      ...both,
      own: fresh([each], NOW).own,
      clock: { ...both.clock, phase: "work" as const, other: true },
    };
    const sides = (state: State) =>
      setsOf(of(state.own[1])).map((one) => `${one.sides} ${one.seconds}`);
    expect(sides(stopHere(half, [each], NOW))).toEqual(["left 40"]);
    expect(sides(stopped(half, [each], 1, "hip", NOW))).toEqual(["left 40"]);
    // Skipped before the other side: the first one was done.
    const begun = fresh([each], NOW);
    const turned = { ...begun, clock: { ...begun.clock, phase: "turn" as const } };
    const own = skip(turned, [each], NOW).own[1];
    expect(own && setsOf(own).map((one) => `${one.sides} ${one.seconds}`)).toEqual(["left 40"]);
  });

  it("takes a station before its turn, and comes back to what was left", () => {
    const begun = fresh([four], NOW);
    const jumped = { ...begun, begun: true, clock: jump(2, NOW) };
    const third = act(jumped, [four], "finish", NOW, null);
    expect(openSteps(third, [four])).toEqual([0, 1, 3]);
    const back = act({ ...third, clock: jump(1, NOW) }, [four], "finish", NOW, null);
    // The third is done: it is not come to again.
    expect(back.clock).toMatchObject({ step: 3, phase: "ready" });
    const last = act(back, [four], "finish", NOW, null);
    expect([last.clock.phase, openSteps(last, [four])]).toEqual(["over", [0]]);
    // By the clock, too: a set that was taken before its turn does not begin again.
    const timed = run(circuit(1, ["A", "B", "C"], 30, 0));
    const began = { ...fresh([timed], NOW), begun: true };
    const ahead = tapDone({ ...began, clock: jump(1, NOW) }, [timed], 1);
    const first = act(
      { ...ahead, clock: { ...jump(0, NOW), phase: "work" } },
      [timed],
      "finish",
      NOW,
      null,
    );
    expect(first.clock).toMatchObject({ step: 2, phase: "ready" });
    // What was skipped is open as well: it may be done after all.
    expect(openSteps(skip(fresh([four], NOW), [four], NOW), [four])).toContain(0);
  });

  it("runs again in the same log, behind what is in it", () => {
    const stopped = markDone(markDone(fresh([four], NOW), [four], 0), [four], 1);
    const anew = again(stopped, [four], NOW);
    expect(anew.own[1]?.id).toBe(stopped.own[1]?.id);
    expect(anew.clock.step).toBe(0);
    expect(log(markDone(anew, [four], 0))).toEqual(["Squat", "Squat", "Squat"]);
  });

  it("lets go of a set without losing what stands behind it", () => {
    const besides = logged([set("Squat"), set("Curl")], [0, null]);
    const without = putSet(fresh([besides], NOW), 1, 0, undefined);
    expect(log(without, besides)).toEqual(["Curl"]);
  });
});

describe("time that nobody saw", () => {
  const timed = run(circuit(1, ["Plank", "Squat", "Row"], 40, 20));
  const look = (s: number, set = 0) => ({ wall: NOW + (s + set) * 1000, mono: s * 1000 });
  const working = (): State => ({
    ...fresh([timed], NOW),
    begun: true,
    clock: { step: 0, phase: "work", since: NOW, paused: null },
  });

  it("is told from time that was seen, slept or set back", () => {
    expect(lapse(look(0), look(2.5))).toBe("seen");
    expect(lapse(look(0), look(60))).toBe("unseen");
    // Set forward by a minute, or asleep on a device whose own clock stood still.
    expect(lapse(look(0), look(0.1, 60))).toBe("unseen");
    expect(lapse(look(0), look(0.1, -60))).toBe("set back");
    expect(elapsed(setBack(working().clock, look(30), look(30.1, -60)), NOW - 29_900)).toBe(30.1);
  });

  it("is not asked about where no set ended or began", () => {
    const { clock, steps } = working();
    expect(unseenIn(clock, NOW, NOW + 30_000, steps, timed.sets)).toBeNull();
    expect(unseenIn(clock, NOW, NOW + 45_000, steps, timed.sets)?.ended).toEqual([0]);
    const rests = { ...clock, phase: "rest" as const };
    expect(unseenIn(rests, NOW, NOW + 25_000, steps, timed.sets)?.ended).toEqual([]);
  });

  it("makes no set done, unless somebody says so", () => {
    const state = working();
    const unseen = of(unseenIn(state.clock, NOW + 10_000, NOW + 125_000, state.steps, timed.sets));
    expect(unseen.ended).toEqual([0, 1]);
    const held = hold(state, unseen);
    expect(logOf(timed, of(held.own[1])).sets).toEqual([]);
    const later = NOW + 140_000;
    const no = notDone(held, later);
    expect(logOf(timed, of(no.own[1])).sets).toEqual([]);
    expect([no.clock.step, elapsed(no.clock, later)]).toEqual([0, 10]);
    const yes = seenAfterAll(held, [timed], later);
    expect(names(yes)).toEqual(["Plank", "Squat"]);
    // 125 s: two sets and two rests are over, the third set runs for five seconds.
    expect([yes.clock.step, yes.clock.phase, elapsed(yes.clock, later)]).toEqual([2, "work", 5]);
    expect([no.unseen, yes.unseen]).toEqual([null, null]);
  });
});

describe("a group", () => {
  const one = run([due(set("Squat")), due(set("Row"))]);
  const other = run([due(set("Press"))], { athlete: 2, name: "Bo Test", plan: 8 });
  const both = [one, other];

  it("follows the longest plan; who has nothing at a place logs nothing", () => {
    expect(leader(both)).toBe(one);
    let state = fresh(both, NOW);
    state = markDone(markDone(state, both, 0), both, 1);
    expect([names(state, 1), names(state, 2)]).toEqual([["Squat", "Row"], ["Press"]]);
  });

  it("goes on without the one who stopped", () => {
    const state = fresh(both, NOW);
    const hurt: State = {
      ...state,
      own: {
        ...state.own,
        2: { ...of(state.own[2]), stopped: true, pain: [{ exercise: "Press", note: "knee" }] },
      },
    };
    const next = markDone(hurt, both, 0);
    expect([names(next, 1), names(next, 2)]).toEqual([["Squat"], []]);
    expect(logOf(other, of(next.own[2])).pain).toEqual([{ exercise: "Press", note: "knee" }]);
  });

  it("takes whoever stopped in again, with what was missed still open", () => {
    let state = stopped(fresh(both, NOW), both, 2, "knee", NOW);
    state = skip(state, both, NOW);
    expect([of(state.own[1]).done[0], of(state.own[2]).done[0]]).toEqual([null, undefined]);
    state = markDone(goesOn({ ...state, clock: { ...state.clock, step: 0 } }, 2), both, 0);
    expect(names(state, 2)).toEqual(["Press"]);
    // What hurt stays told.
    expect(of(state.own[2]).pain).toHaveLength(1);
  });

  it("lets somebody in at the set in hand: nobody begins anew, nothing is left out", () => {
    let state = markDone(fresh([other], NOW), [other], 0);
    state = { ...state, begun: true, clock: { ...state.clock, step: 0 } };
    const all = joined({ ...state, plans: JOINING }, both, NOW);
    expect(all.steps.map((step) => step.set)).toEqual([0, 1]);
    expect([all.clock.step, all.begun]).toEqual([0, false]);
    expect([names(all, 2), names(all, 1)]).toEqual([["Press"], []]);
    expect(of(all.own[1]).done).toEqual({});
    expect(all.plans).toBe(plansOf(both));
    const next = markDone(all, both, 1);
    expect(names(next, 1)).toEqual(["Row"]);
  });

  it("notes what was ticked by hand, once", () => {
    const ticked = tick(fresh([one], NOW), 1, "Sledge 3 times");
    expect(logOf(one, of(ticked.own[1])).notes).toBe("Done as written: Sledge 3 times");
    const twice = tick(ticked, 1, "Sledge 3 times");
    expect(logOf(one, of(twice.own[1])).notes).toBe("");
  });

  it("is laid together of answers that were kept one by one", () => {
    const movement = (name: string): Schemas["FloorMovement"] => ({
      name,
      loads: [],
      easier: null,
      harder: null,
      instead: [],
      tempo: null,
      isometric: false,
      can_be_helped: false,
      bounds: UNBOUNDED,
      cues: [],
    });
    const answer = (of: typeof one, ...known: string[]): Schemas["FloorRun"] => ({
      run: of,
      movements: known.map(movement),
      names: known,
      caution: "Stop on pain.",
      sensor: false,
    });
    const all = together([answer(one, "Squat", "Row"), answer(other, "Press", "Row")]);
    expect(all.runs).toEqual(both);
    expect(all.movements.map((each) => each.name)).toEqual(["Squat", "Row", "Press"]);
    expect([all.names, all.caution]).toEqual([["Squat", "Row", "Press"], "Stop on pain."]);
    expect(together([]).runs).toEqual([]);
  });
});

describe("a change that holds for the sets to come", () => {
  const pyramid = run([
    due(set("Squat", { reps: 5, load_kg: 40 })),
    due(set("Squat", { reps: 5, load_kg: 60 })),
    due(set("Row")),
    due(set("Squat", { reps: 8, load_kg: 60, tempo: "3-0-1" })),
  ]);

  it("counts what is still to come of the movement", () => {
    const state = fresh([pyramid], NOW);
    expect(toCome(pyramid, state, 0)).toEqual([1, 3]);
    expect(toCome(pyramid, markDone(state, [pyramid], 1), 0)).toEqual([3]);
    expect(toCome(pyramid, state, 2)).toEqual([]);
  });

  it("swaps the movement and keeps the steps of its loads, as far as the kit has them", () => {
    const loads = [10, 20, 25, 30];
    const state = carry(
      fresh([pyramid], NOW),
      pyramid,
      0,
      set("Leg press", { reps: 5, load_kg: 20 }),
      loads,
    );
    expect(wanted(pyramid, state, 1)?.set).toMatchObject({
      exercise: "Leg press",
      load_kg: 30,
      reps: 5,
    });
    expect(wanted(pyramid, state, 3)?.set).toMatchObject({
      exercise: "Leg press",
      load_kg: 30,
      reps: 8,
      tempo: "3-0-1",
    });
    expect(wanted(pyramid, state, 2)?.movement).toBe("Row");
    expect(names(markDone(state, [pyramid], 3))).toEqual(["Leg press"]);
  });

  it("takes another load where the plan had the same, and leaves the others", () => {
    const state = carry(
      fresh([pyramid], NOW),
      pyramid,
      1,
      set("Squat", { reps: 4, load_kg: 55, rpe: 9 }),
      [],
    );
    expect(wanted(pyramid, state, 3)?.set).toMatchObject({ load_kg: 55, reps: 8, rpe: null });
    const first = carry(
      fresh([pyramid], NOW),
      pyramid,
      0,
      set("Squat", { reps: 5, load_kg: 45 }),
      [],
    );
    expect(wanted(pyramid, first, 1)?.set.load_kg).toBe(60);
  });

  it("holds for a round on top, and moves what stands behind it", () => {
    const rounds = run(circuit(2, ["Squat", "Row"], 40, 20));
    let state = fresh([rounds], NOW);
    state = carry(state, rounds, 2, set("Lunge", { reps: null, seconds: 40 }), []);
    state = putSet(state, 1, 3, set("Row", { reps: null, seconds: 33 }));
    const early = insertSteps(state, oneMore(state.steps, 0, rounds.sets), 1);
    expect([4, 5].map((step) => wanted(rounds, early, step)?.movement)).toEqual(["Lunge", "Row"]);
    expect(early.own[1]?.done[5]?.seconds).toBe(33);
    const late = insertSteps(state, oneMore(state.steps, 3, rounds.sets), 3);
    expect([4, 5].map((step) => wanted(rounds, late, step)?.movement)).toEqual(["Lunge", "Row"]);
  });

  it.each([
    [22, [], 22],
    [22, [10, 20, 30], 20],
    [5, [10, 20], 10],
    [20.02, [10, 20], 20.02],
  ])("takes %d kg of %j as %d", (load, loads, fits) => {
    expect(fitting(load, loads)).toBe(fits);
  });
});

it.each([
  [set("Press", { load_kg: 12, implements: 2, rpe: 8.5 }), "8 reps, at 2 × 12 kg, RPE 8.5"],
  [set("Plank", { reps: null, seconds: 40 }), "40 s"],
  [set("Row", { sides: "each", warm_up: true }), "8 reps each side, warm-up"],
  [set("Press", { load_kg: 61.235, unit: "lb" }), "8 reps, at 135 lb"],
  [set("Pull-up", { load_kg: -15 }), "8 reps, 15 kg help"],
  [set("Pull-up", { band: "green" }), "8 reps, band green"],
])("a set is told in a few words", (one, words) => {
  expect(told(one)).toBe(words);
});

describe("a change of a set", () => {
  const two = run([due(set("Squat")), due(set("Squat"))]);

  it("is no set done before its time: it is only to be done otherwise", () => {
    const state = fresh([two], NOW);
    const next = changed(
      state,
      two,
      edit(state, 1, 0),
      set("Squat", { reps: 6, rpe: 9 }),
      false,
      [],
    );
    expect(names(next)).toEqual([]);
    expect(wanted(two, next, 0)?.says).toBe("6 reps, RPE 9");
    expect(markDone(next, [two], 0).own[1]?.done[0]).toMatchObject({ reps: 6, rpe: 9 });
    expect(wanted(two, next, 1)?.says).toBe("8 reps");
  });

  it("is made anew with each tap, not on top of the one before", () => {
    const state = markDone(fresh([two], NOW), [two], 0);
    const editing = edit(state, 1, 0);
    const first = changed(state, two, editing, set("Lunge"), true, []);
    expect(wanted(two, first, 1)?.movement).toBe("Lunge");
    const second = changed(first, two, editing, set("Lunge", { reps: 5 }), false, []);
    expect([names(second), wanted(two, second, 1)?.movement]).toEqual([["Lunge"], "Squat"]);
    expect(names(changed(second, two, editing, null, false, []))).toEqual([null]);
  });

  it("is taken back: the set, and those to come, as they were when it was opened", () => {
    const state = fresh([two], NOW);
    const editing = edit(state, 1, 0);
    expect(asBefore(changed(state, two, editing, set("Lunge"), true, []), two, editing)).toEqual(
      state,
    );
    const done = markDone(state, [two], 0);
    const again = edit(done, 1, 0);
    expect(asBefore(changed(done, two, again, null, false, []), two, again)).toEqual(done);
  });

  it("keeps what the clock did meanwhile", () => {
    const state = fresh([two], NOW);
    const editing = edit(state, 1, 0);
    let later = changed(state, two, editing, set("Lunge"), false, []);
    later = markDone(markDone(later, [two], 0), [two], 1);
    expect(names(later)).toEqual(["Lunge", "Squat"]);
    expect(names(changed(later, two, editing, set("Step-up"), false, []))).toEqual([
      "Step-up",
      "Squat",
    ]);
    expect(names(asBefore(later, two, editing))).toEqual(["Squat", "Squat"]);
  });
});
