import { expect, test } from "vitest";
import type { Schemas } from "@/api/client";
import { changesOf } from "@/frame/changesOf";

type Entry = Schemas["JournalLine"];

const entry = (id: number, change: string) => ({ id, change }) as Entry;
const numbers = (entries: Entry[]) => changesOf(entries).map((all) => all.map((one) => one.id));

test("entries of one change stand together, those that stand alone do not", () => {
  expect(numbers([])).toEqual([]);
  expect(numbers([entry(5, ""), entry(4, "")])).toEqual([[5], [4]]);
  expect(numbers([entry(5, "a"), entry(4, "a"), entry(3, "b")])).toEqual([[5, 4], [3]]);
});

test("another change between them keeps them apart, so that the order stays true", () => {
  expect(numbers([entry(5, "a"), entry(4, ""), entry(3, "a")])).toEqual([[5], [4], [3]]);
});
