import { expect, test } from "vitest";
import { differencesOf, readable } from "../src/frame/OtherVersion";

test("values are read as a person writes them", () => {
  expect(readable([0.7, 1.1])).toBe("0.7, 1.1");
  expect(readable(true)).toBe("yes");
  expect(readable(null)).toBe("–");
  expect(readable([])).toBe("none");
  expect(readable({ push_pull: [0.7, 1.1] })).toBe("push pull 0.7, 1.1");
  expect(readable("mean_4")).toBe("mean 4");
});

test("only what is not the same stands beside each other, by its name", () => {
  const theirs = { a: 1, b: [2, 3], c: "x" };
  const mine = { a: 1, b: [2, 4], d: false };
  expect(differencesOf(theirs, mine, (name) => name.toUpperCase())).toEqual([
    { what: "B", theirs: "2, 3", mine: "2, 4" },
    { what: "C", theirs: "x", mine: "–" },
    { what: "D", theirs: "–", mine: "no" },
  ]);
  expect(differencesOf(mine, { ...mine }, String)).toEqual([]);
});
