import { describe, expect, it } from "vitest";
import {
  type Line,
  type LogSession,
  emptyLog,
  keyOf,
  rebuilt,
  restAsPlanned,
  sameLine,
} from "@/places/log/log";
import { asPlanned } from "@/shared/coreRules";
import { set } from "./build";

const line = (at: number | null, done_at: number | null, more: Partial<Line> = {}): Line => ({
  kind: "as planned",
  movement: "Press",
  part: "",
  planned: "",
  done: "",
  words: "",
  at,
  done_at,
  doubt: null,
  ...more,
});
const session = (plan: number | null, log: string | null): LogSession => ({
  plan:
    plan === null
      ? null
      : { id: plan, date: "2026-11-25", title: "", missed: null, minutes: 40, sets: [] },
  log: log === null ? null : { client_id: log, revision: 1, session: emptyLog("2026-11-25", "") },
  by: null,
  ahead: false,
  lines: [],
  notes: [],
  planned: {},
  done: {},
  versions: [],
});

it("a session keeps its name when it is logged", () => {
  expect(keyOf(session(7, null))).toBe("plan-7");
  expect(keyOf(session(7, "log-one"))).toBe("plan-7");
  expect(keyOf(session(null, "log-one"))).toBe("log-one");
});

describe("the sets of a log", () => {
  const done = [set("Press", { reps: 5 }), set("Row"), set("Curl")];
  const lines = [line(0, 0), line(1, null), line(2, 1), line(null, 2)];

  it("stay as they are where nothing is changed; a skipped one is not made up", () => {
    expect(rebuilt(lines, done, () => null)).toEqual(done);
  });

  it("are changed line by line: another, several, none", () => {
    const more = set("Dip");
    expect(
      rebuilt(lines, done, (one) => (one.at === 1 ? [more] : null)).map((one) => one.exercise),
    ).toEqual(["Press", "Dip", "Row", "Curl"]);
    expect(rebuilt(lines, done, (one) => (one.at === 0 ? [] : null))).toEqual(done.slice(1));
    expect(rebuilt(lines, done, (one) => (one.at === null ? [more, more] : null)).length).toBe(4);
  });

  it("are found again by their place in the plan, also after others have come", () => {
    const same = sameLine(line(2, 1));
    expect([line(2, 4), line(2, null), line(1, 1)].map(same)).toEqual([true, true, false]);
    const extra = sameLine(line(null, 2));
    expect([line(null, 2), line(null, 3), line(2, 2)].map(extra)).toEqual([true, false, false]);
  });

  it("are as planned where nothing was said; what was typed stays", () => {
    const typed = [set("Press", { reps: 7, load_kg: 16 }), set("Dip")];
    const plan = [set("Press", { load_kg: 18 }), set("Press", { load_kg: 18 }), set("Row")];
    const one = {
      ...session(7, "log-one"),
      lines: [line(0, 0), line(1, null), line(null, 1), line(2, null)],
    };
    if (one.plan) one.plan.sets = plan;
    if (one.log) one.log.session.sets = typed;
    const sets = restAsPlanned(one).map((each) => [each.exercise, each.reps, each.load_kg]);
    expect(sets).toEqual([
      ["Press", 7, 16],
      ["Press", 8, 18],
      ["Dip", 8, 0],
      ["Row", 8, 0],
    ]);
    expect(restAsPlanned(one, (each) => each.at === 1).length).toBe(3);
  });

  it("carry nothing that only a plan says", () => {
    expect(asPlanned(set("Press", { reps_to: 12, note: "slow", band: "strong" }))).toMatchObject({
      exercise: "Press",
      band: "strong",
    });
    expect(asPlanned(set("Press", { reps_to: 12 }))).toMatchObject({ reps_to: null });
  });
});
