import { describe, expect, it } from "vitest";
import { labelled, settingWords, tickWords } from "@/marks/scale";
import { shownNotches } from "@/places/dial/nearest";

const SETS = { least: 24, most: 96, step: 1, unit: "sets", whole: null } as const;
const PAIR = { least: 13, most: 28, step: 1, unit: "pair", whole: 32 } as const;
const LOAD = { least: -8, most: 8, step: 2.5, unit: "%", whole: null } as const;

describe("a dial's scale", () => {
  it("says a setting as a coach reads it", () => {
    expect(settingWords(SETS, 57)).toBe("57 sets");
    expect(settingWords(SETS, 1)).toBe("1 set");
    expect(settingWords(PAIR, 19)).toBe("19 : 13");
    expect(settingWords(LOAD, 2)).toBe("+5 %");
    expect(settingWords(LOAD, -1)).toBe("−2.5 %");
    expect(settingWords(LOAD, 0)).toBe("as it is");
    expect(tickWords(LOAD, 4)).toBe("+10");
  });

  it("writes round settings, and not too many", () => {
    expect([...labelled(LOAD)]).toEqual([-8, -4, 0, 4, 8]);
    for (const scale of [SETS, PAIR, LOAD, { ...SETS, least: 2, most: 7 }]) {
      const found = [...labelled(scale)];
      expect(found.length).toBeGreaterThan(2);
      expect(found.length).toBeLessThanOrEqual(8);
      expect(found.every((one) => one >= scale.least && one <= scale.most)).toBe(true);
    }
  });
});

describe("the notches that are shown", () => {
  const notch = (
    total: number,
    effect: "clears" | "appears",
    level: "high" | "caution" = "caution",
  ) => ({
    total,
    effect,
    level,
    title: "Jump",
    label: `${total}`,
    sentence: "",
  });
  const notches = [
    notch(50, "clears"),
    notch(54, "clears"),
    notch(57, "appears"),
    notch(63, "appears"),
    notch(63, "appears", "high"),
    notch(70, "appears"),
  ];
  const totals = (pointer: number, all = false) =>
    shownNotches({ start: 59, notches }, pointer, all).map((one) => one.total);

  it("are the nearest of each effect on each side", () => {
    expect(totals(59)).toEqual([54, 57, 63]);
    expect(shownNotches({ start: 59, notches }, 59, false).at(-1)?.level).toBe("high");
  });

  it("leave out what was passed on the way", () => {
    expect(totals(56)).toEqual([54, 63]);
    expect(totals(64)).toEqual([54, 57, 70]);
  });

  it("are all of them when asked for", () => {
    expect(totals(59, true)).toEqual([50, 54, 57, 63, 63, 70]);
  });
});
