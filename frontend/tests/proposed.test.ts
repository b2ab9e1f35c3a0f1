import { describe, expect, it } from "vitest";
import { type Step, bundled, proposed } from "@/places/dial/proposed";
import type { Sessions } from "@/places/dial/draft";
import { set } from "./build";

const line = (name: string, count: number) => ({
  kind: "sets" as const,
  units: [[set(name)]],
  count,
});
const step = (session: number, at: number | null, from: number, to: number): Step => ({
  session,
  day: `2026-11-2${session}`,
  title: "",
  line: at,
  movement: "Row",
  kind: at === null ? "new" : "line",
  count_from: from,
  count_to: to,
  sets: Math.abs(to - from),
  reason: "",
  effect: {},
  bundle: 0,
});

describe("steps that need each other", () => {
  it("stand together, in the order in which they come", () => {
    const of = (bundle: number, session: number) => ({ ...step(session, 1, 3, 5), bundle });
    const found = bundled([of(1, 0), of(0, 1), of(1, 2)]);
    expect(found.map((one) => one.map(({ session }) => session))).toEqual([[0, 2], [1]]);
  });
});

describe("steps of a proposal at the lines of the draft", () => {
  const sessions = [
    { date: "2026-11-19", title: "", lines: [line("Press", 0)] },
    { date: "2026-11-20", title: "", lines: [line("Press", 0), line("Row", 3)] },
    { date: "2026-11-21", title: "", lines: [line("Squat", 2)] },
  ] as Sessions;

  it("stand where the core counts them: without what has no sets", () => {
    const found = proposed([step(0, 1, 3, 5), step(1, null, 0, 2)], sessions);
    expect([...found.keys()]).toEqual([1, 2]);
    expect([...(found.get(1)?.lines.keys() ?? [])]).toEqual([1]);
    expect(found.get(2)?.added.map((one) => one.count_to)).toEqual([2]);
  });

  it("are left out where the draft is another by now", () => {
    const elsewhere = { ...step(0, 1, 3, 5), day: "2026-11-25" };
    const found = proposed(
      [step(0, 1, 4, 5), step(0, 9, 3, 5), elsewhere, step(7, 1, 3, 5)],
      sessions,
    );
    expect(found.get(1)?.lines.size ?? 0).toBe(0);
    expect(found.size).toBeLessThan(2);
  });
});
