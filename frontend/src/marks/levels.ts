import type { Level } from "@/api/client";

/** So many plates stand for a level on a dial, in its colour. */
export const BARS: Record<Level, number> = { note: 1, caution: 2, high: 3 };
export const COLOUR: Record<Level, string> = {
  note: "var(--note)",
  caution: "var(--caution)",
  high: "var(--high)",
};
