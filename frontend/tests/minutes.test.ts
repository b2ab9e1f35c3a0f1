import { expect, it } from "vitest";
import { onTheClock } from "@/places/floor/minutes";
import { due, set } from "./build";

it("lays a session on the clock, part by part", () => {
  const one = (part: string, takes_s: number, more = {}) =>
    due(set("Squat", more), { part, takes_s });
  expect(
    onTheClock([
      one("", 60, { warm_up: true }),
      one("", 120),
      one("main", 90),
      one("finisher", 30),
      one("", 15),
    ]),
  ).toEqual([
    { name: "warm-up", from: 0, to: 60 },
    { name: "main", from: 60, to: 270 },
    { name: "finisher", from: 270, to: 300 },
    { name: "main", from: 300, to: 315 },
  ]);
  expect(onTheClock([])).toEqual([]);
});
