import { afterEach, describe, expect, it } from "vitest";
import type { SeasonLine, SeasonWeek } from "@/api/season";
import { allowed, height, lineKey, range, reading, told } from "@/places/season/lines";
import { domain, middle, ticks, weekTick } from "@/places/season/frame";
import { showIn } from "@/words";

afterEach(() => showIn("kg"));

const line = (more: Partial<SeasonLine> = {}): SeasonLine => ({
  kind: "muscle",
  subject: "chest",
  label: "chest",
  measure: "sets",
  figure: null,
  values: [5],
  standings: ["none"],
  planned: null,
  bases: null,
  lows: null,
  highs: null,
  rough: null,
  one_sided: null,
  ...more,
});

const weeks = (count: number): SeasonWeek[] =>
  Array.from({ length: count }, (_, at) => {
    const monday = new Date(Date.UTC(2026, 7, 3 + 7 * at)).toISOString().slice(0, 10);
    return {
      week: `2026-W${32 + at}`,
      monday,
      trained: true,
      lighter: false,
      gap: false,
      back: false,
      block: null,
      in_block: false,
      signed: false,
      pain: [],
      restrictions: [],
      decisions: [],
      kind: null,
    };
  });

describe("where a value stands in its cell", () => {
  const banded = (value: number | null, more: Partial<SeasonLine> = {}) =>
    height(line({ values: [value], lows: [8], highs: [20], ...more }), 0, [0, 0]);

  it("has its band in the middle third", () => {
    expect(banded(8)).toBeCloseTo(1 / 3);
    expect(banded(20)).toBeCloseTo(2 / 3);
    expect(banded(14)).toBeCloseTo(1 / 2);
  });

  it("rises with the value, and never leaves the cell", () => {
    const heights = [0, 4, 8, 12, 20, 24, 400].map((value) => banded(value));
    expect(heights).toEqual([...heights].sort((a, b) => a - b));
    expect(Math.min(...heights)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...heights)).toBeLessThanOrEqual(1);
  });

  it("has the base in the middle where only an end above is given", () => {
    const jump = (value: number) =>
      height(line({ values: [value], bases: [12], highs: [14.4] }), 0, [0, 0]);
    expect(jump(12)).toBeCloseTo(1 / 2);
    expect(jump(14.4)).toBeCloseTo(2 / 3);
  });

  it("lies between the line's own least and most where nothing is allowed or not", () => {
    const loads = line({ values: [40, 50, 60] });
    expect(range(loads)).toEqual([40, 60]);
    const [low, middle_, high] = [0, 1, 2].map((at) => height(loads, at, range(loads)));
    expect(low).toBeCloseTo(0.15);
    expect(middle_).toBeCloseTo(0.5);
    expect(high).toBeCloseTo(0.85);
    expect(height(line({ values: [40, 40] }), 0, [40, 40])).toBe(0.5);
  });

  it("is at the head where all is on one side", () => {
    expect(banded(null, { one_sided: [true] })).toBe(1);
  });
});

describe("a week of a line in words", () => {
  const over = weeks(1);

  it.each([
    [line({ values: [12], standings: ["within"] }), "Week 32: 12 sets, within"],
    [line({ values: [4], standings: ["below"] }), "Week 32: 4 sets, below its band"],
    [line({ values: [9], rough: [true], measure: "reps" }), "Week 32: 9 reps, estimated in part"],
    [line({ values: [null] }), "Week 32: nothing"],
    [
      line({ values: [null], one_sided: [true], standings: ["above"], measure: "ratio" }),
      "Week 32: all on one side, above its band",
    ],
  ])("says what it is", (one, words) => {
    expect(reading(one, over, 0)).toBe(words);
  });

  it("tells a value in what it is counted in", () => {
    expect(told(line({ measure: "ratio" }), 0.7)).toBe("0.70");
    expect(told(line({ measure: "share" }), 0.75)).toBe("75\u202f%");
    expect(told(line({ measure: "load" }), 1334)).toBe("1\u202f334");
    expect(told(line({ measure: "load_kg" }), 60)).toBe("60 kg");
    expect(told(line(), null)).toBe("–");
    showIn("lb");
    expect(told(line({ measure: "load_kg" }), 45.359237)).toBe("100 lb");
  });

  it("tells what is allowed", () => {
    expect(allowed(line({ lows: [8], highs: [20] }), 0)).toBe("8 sets to 20 sets");
    expect(allowed(line({ highs: [14.4] }), 0)).toBe("up to 14.4 sets");
    expect(allowed(line({ lows: [2] }), 0)).toBe("from 2 sets");
    expect(allowed(line(), 0)).toBe("");
  });

  it("has a name for the address bar", () => {
    expect(lineKey(line())).toBe("muscle/chest");
  });
});

describe("the axis", () => {
  it.each([16, 26, 52])("has a place for each of %d weeks, in order and inside", (count) => {
    const several = weeks(count);
    const [first, last] = domain(several);
    const places = several.map(middle);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places[0]).toBeGreaterThan(first);
    expect(places.at(-1)).toBeLessThan(last);
    // As wide as the columns above: every week the same.
    expect((last - first) / count / 86_400_000).toBeCloseTo(7, 0);
  });

  it("names few enough weeks to be read, the last among them", () => {
    for (const count of [16, 26, 52]) {
      const several = weeks(count);
      const named = ticks(several);
      expect(named.length).toBeLessThanOrEqual(16);
      expect(named.at(-1)).toBe(middle(several.at(-1) as SeasonWeek));
    }
    const several = weeks(3);
    expect(weekTick(several)(middle(several[1] as SeasonWeek))).toBe("33");
    expect(weekTick(several)(5)).toBe("");
  });
});
