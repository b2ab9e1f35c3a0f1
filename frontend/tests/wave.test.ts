import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { squadsOf } from "@/frame/squads";
import { findingRows, shapeWords } from "@/places/block/wave";
import type { WaveWeek } from "@/places/block/useWave";

const finding = (subject: string, level: "high" | "caution" = "caution") => ({
  code: "muscle_floor",
  subject,
  measure: "sets",
  level,
  title: "Below the minimum",
  label: subject,
  sentence: `${subject} is low`,
});
const week = (name: string, ...findings: ReturnType<typeof finding>[]) =>
  ({ week: name, findings }) as unknown as Schemas["BlockWeek"];
const proposed = (name: string, ...findings: object[]) =>
  ({ week: name, shape: "plan", weeks_off: null, findings }) as unknown as WaveWeek;

describe("findings over the weeks of a block", () => {
  const weeks = [
    week("W1", finding("lats")),
    week("W2", finding("lats"), finding("chest", "high")),
  ];

  it("stand in rows, those that weigh most first", () => {
    const rows = findingRows(weeks, new Map());
    expect(rows.map((row) => row.label)).toEqual(["lats", "chest"]);
    expect(rows[0]?.marks.map((mark) => mark?.state)).toEqual(["open", "open"]);
    expect(rows[1]?.marks.map((mark) => mark?.state)).toEqual([undefined, "open"]);
  });

  it("say in which week each clears, and why one stays", () => {
    const found = new Map([
      [
        "W1",
        proposed("W1", { ...finding("lats"), before: true, left: true, why: "one more jumps" }),
      ],
      ["W2", proposed("W2", { ...finding("lats"), before: true, left: false, why: "" })],
    ]);
    const [lats] = findingRows(weeks, found);
    expect(lats?.marks.map((mark) => mark?.state)).toEqual(["stays", "cleared"]);
    expect(lats?.marks[0]?.says).toBe("one more jumps");
  });

  it("say what a week begins with", () => {
    expect(shapeWords({ ...proposed("W1"), shape: "return", weeks_off: 3 })).toBe(
      "low, after 3 weeks off",
    );
    expect(shapeWords({ ...proposed("W1"), shape: "plan" })).toBe("");
  });
});

it("names the squads that there are", () => {
  expect(
    squadsOf([{ squad: "U23" }, { squad: "" }, { squad: "Juniors" }, { squad: "U23" }]),
  ).toEqual(["Juniors", "U23"]);
});
