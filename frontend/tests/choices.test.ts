import { describe, expect, it } from "vitest";
import { isTable, valueOf, withChoice } from "@/places/rules/choices";

const BANDS: Record<string, [number, number]> = { push_pull: [0.7, 1.1], knee_hip: [0.7, 1.5] };

describe("choices over those under them", () => {
  it("have what was chosen, and what is under it where nothing was", () => {
    expect(valueOf(undefined, 0.5)).toBe(0.5);
    expect(valueOf(1, 0.5)).toBe(1);
    expect(valueOf({ push_pull: [0.5, 0.9] }, BANDS)).toEqual({ ...BANDS, push_pull: [0.5, 0.9] });
  });

  it("forget what is as it is under them", () => {
    const once = withChoice({}, "indirect_credit", 1, 0.5);
    expect(once).toEqual({ indirect_credit: 1 });
    expect(withChoice(once, "indirect_credit", 0.5, 0.5)).toEqual({});
  });

  it("keep of a table the rows that differ", () => {
    const next = { ...BANDS, knee_hip: [0.5, 2] as [number, number] };
    const once = withChoice({ spacing_sets: 6 }, "balance_bands", next, BANDS);
    expect(once).toEqual({ spacing_sets: 6, balance_bands: { knee_hip: [0.5, 2] } });
    expect(withChoice(once, "balance_bands", BANDS, BANDS)).toEqual({ spacing_sets: 6 });
  });

  it("change nothing of what they were given", () => {
    const before = { spacing_sets: 6 };
    withChoice(before, "spacing_sets", 4, 4);
    expect(before).toEqual({ spacing_sets: 6 });
  });

  it("know a table from a pair of limits", () => {
    expect(isTable(BANDS)).toBe(true);
    expect([isTable([0.1, 0.2]), isTable(null), isTable(3)]).toEqual([false, false, false]);
  });
});
