import { afterEach, describe, expect, it } from "vitest";
import {
  amount,
  keptWeight,
  number,
  percent,
  ratio,
  share,
  showIn,
  signed,
  span,
  time,
  typedWeight,
  unit,
  weekName,
  weight,
} from "@/words";
import core from "./fixtures/core.json";

afterEach(() => showIn("kg"));

it.each(core.times)("a time reads as the core tells it: $seconds", ({ seconds, says }) => {
  expect(time(seconds)).toBe(says);
});

it.each([
  [0.68, 2, "0.68"],
  [12.5, 2, "12.5"],
  [1240, 0, "1\u202f240"],
  [1_234_567.891, 2, "1\u202f234\u202f567.89"],
  [-3.5, 1, "−3.5"],
  [-0.001, 2, "0"],
  [7, 1, "7"],
])("a number has no more digits than are known: %d", (value, digits, text) => {
  expect(number(value, digits)).toBe(text);
});

describe("weights", () => {
  it("are shown in the unit of the coach, and as they were entered", () => {
    expect(weight(60)).toBe("60 kg");
    expect(weight(61.235, "lb")).toBe("135 lb");
    showIn("lb");
    expect(weight(61.235)).toBe("135 lb");
    expect(weight(60, "kg")).toBe("60 kg");
    expect([amount(1000, "volume_load_kg"), unit("volume_load_kg")]).toEqual(["2\u202f205", "lb"]);
    expect([amount(12, "sets"), unit("sets")]).toEqual(["12", "sets"]);
  });

  it("do not drift, however often they are typed and kept", () => {
    showIn("lb");
    for (let typed = 0.5; typed < 700; typed += 0.5) {
      let kilograms = keptWeight(typed);
      for (let turn = 0; turn < 20; turn += 1) kilograms = keptWeight(typedWeight(kilograms));
      expect(typedWeight(kilograms)).toBe(typed);
      expect(kilograms).toBe(keptWeight(typed));
    }
    showIn("kg");
    expect([typedWeight(57.5), keptWeight(57.5)]).toEqual([57.5, 57.5]);
  });
});

it("changes and shares carry their sign and no false precision", () => {
  expect([percent(0.345), percent(0.0345), percent(-0.5)]).toEqual([
    "+35\u202f%",
    "+3.5\u202f%",
    "−50\u202f%",
  ]);
  expect([share(0.834), share(null), ratio(null), ratio(0.5)]).toEqual([
    "83\u202f%",
    "–",
    "–",
    "0.50",
  ]);
  expect([signed(3, "sets"), signed(-3.04, "sets"), signed(0.01, "sets")]).toEqual([
    "+3",
    "−3",
    "0",
  ]);
});

it("days and weeks are said as people say them", () => {
  expect(span("2026-11-16", "2026-11-22")).toBe("16–22 Nov 2026");
  expect(span("2026-09-28", "2026-10-04")).toMatch(/^28 Sept? – 4 Oct 2026$/);
  expect(weekName("2026-W07")).toBe("Week 7");
});
