import { afterEach, expect, it, vi } from "vitest";
import { newId } from "@/api/id";

afterEach(() => vi.unstubAllGlobals());

/** What the server takes for the id of a log. */
const TAKEN = /^[A-Za-z0-9-]{4,64}$/;

it.each(["https", "plain http"])("ids are new each time over %s", (how) => {
  const { getRandomValues } = crypto;
  if (how === "plain http")
    vi.stubGlobal("crypto", { getRandomValues: getRandomValues.bind(crypto) });
  const ids = Array.from({ length: 500 }, newId);
  expect(new Set(ids).size).toBe(500);
  expect(ids.every((one) => TAKEN.test(one))).toBe(true);
});
