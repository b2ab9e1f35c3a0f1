import { describe, expect, it } from "vitest";
import type { Finding, Sheet } from "@/places/sheet/open";
import { causeKey, keyOf, step, stopsOf } from "@/places/sheet/walk-verdict";

const finding = (subject: string) =>
  ({ code: "muscle_floor", subject, measure: "sets" }) as Finding;

/** Two causes, of three findings and of one, and a note that stands alone. */
const sheet = {
  findings: ["chest", "lats", "quads", "calves", "total"].map(finding),
  causes: [
    { code: "missed", subject: "2026-11-20", findings: [0, 1, 2] },
    { code: "short", subject: "2026-11-18", findings: [3] },
  ],
} as Sheet;

describe("the walk through a verdict", () => {
  it("stops at causes, and at what stands alone", () => {
    expect(stopsOf(sheet, null)).toEqual([
      { cause: 0, finding: null },
      { cause: 1, finding: null },
      { cause: null, finding: 4 },
    ]);
  });

  it("goes through what follows from a cause that is unfolded", () => {
    expect(stopsOf(sheet, 0).map((one) => one.finding)).toEqual([null, 0, 1, 2, null, 4]);
  });

  it("does not stop twice where a cause has but one finding", () => {
    expect(stopsOf(sheet, 1)).toEqual(stopsOf(sheet, null));
  });

  it("goes round at both ends, and begins at either", () => {
    const stops = stopsOf(sheet, null);
    const nowhere = { cause: null, finding: null };
    expect(step(stops, nowhere, 1)).toEqual(stops[0]);
    expect(step(stops, nowhere, -1)).toEqual(stops[2]);
    expect(step(stops, { cause: null, finding: 4 }, 1)).toEqual(stops[0]);
    expect(step(stops, { cause: 0, finding: null }, -1)).toEqual(stops[2]);
    expect(step([], nowhere, 1)).toBeUndefined();
  });

  it("every step forward can be taken back", () => {
    for (const unfolded of [null, 0, 1]) {
      const stops = stopsOf(sheet, unfolded);
      for (const stop of stops) {
        const next = step(stops, stop, 1);
        expect(next && step(stops, next, -1)).toEqual(stop);
      }
    }
  });

  it("names causes and findings in the address", () => {
    expect(causeKey(sheet.causes[0] ?? { code: "", subject: "" })).toBe("missed/2026-11-20");
    expect(keyOf(finding("chest"))).toBe("muscle_floor/chest/sets");
  });
});
