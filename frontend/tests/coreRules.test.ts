import { describe, expect, it } from "vitest";
import { asPlanned, atOrBelow, beyond, fitting } from "@/shared/coreRules";
import type { CoreSet, Schemas } from "@/api/client";
import core from "./fixtures/core.json";

describe("the rules that Floor has, too, answer as the core does", () => {
  it.each(core.at_or_below)("$wanted kg: $found", ({ wanted, loads, found }) => {
    expect(atOrBelow(wanted, loads)).toBe(found);
    // Floor takes a load that is nearly there, and the least there is where all are above.
    const near = loads.some((one) => Math.abs(one - wanted) <= 0.05);
    expect(fitting(wanted, loads)).toBe(near ? wanted : (found ?? loads[0]));
  });

  it("has both kinds of answers to compare with", () => {
    const found = core.at_or_below.map((one) => one.found);
    expect(found).toContain(null);
    expect(found.filter((one) => one !== null).length).toBeGreaterThan(20);
  });

  it.each(core.as_planned)("keeps of a plan what was done", ({ planned, done }) => {
    expect(asPlanned(planned as unknown as CoreSet)).toEqual(done);
  });

  it.each(core.beyond)("asks about $set.exercise as the core does", ({ set, bounds, doubt }) => {
    const said = beyond(set as unknown as CoreSet, bounds as Schemas["FloorBounds"]);
    // Numbers are written with narrow blanks here.
    expect(said?.says.replace(/\s/gu, " ") ?? null).toBe(doubt);
  });

  it("has sets to ask about and others", () => {
    const asked = core.beyond.filter((one) => one.doubt !== null);
    expect(asked.length).toBeGreaterThan(3);
    expect(asked.length).toBeLessThan(core.beyond.length);
  });

  it("takes any load where nothing is known of the kit", () => {
    expect(fitting(22, [])).toBe(22);
    expect(atOrBelow(22, [])).toBeNull();
  });

  it("leaves help as it is: the kit's loads are none of it", () => {
    expect(fitting(-15, [10, 20])).toBe(-15);
  });
});
