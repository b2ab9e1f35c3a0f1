import { useState } from "react";
import { useRoom } from "./useRoom";

export interface Columns {
  /** The heads of the columns that are shown, in order. */
  heads: string[];
  /** How wide a column is, in pixels. */
  width: (head: string) => number;
  /** On a phone: show the next columns, and which these are; null where all are shown. */
  turn: { go: () => void; to: string[] } | null;
}

/** How many columns of figures a phone has room for beside their names. */
const ON_A_PHONE = 3;
const PHONE_WIDTH = 66;

/**
 * The columns of a wide table: all of them, or on a phone as many as fit, turned to the next by hand.
 *
 * @param widths The columns in order, each with its width in pixels at a desk.
 */
export function useColumns(widths: Record<string, number>): Columns {
  const phone = useRoom() === "phone";
  const [first, setFirst] = useState(0);
  const all = Object.keys(widths);
  if (!phone || all.length <= ON_A_PHONE)
    return { heads: all, width: (head) => widths[head] ?? 0, turn: null };
  const next = first + ON_A_PHONE >= all.length ? 0 : first + ON_A_PHONE;
  return {
    heads: all.slice(first, first + ON_A_PHONE),
    width: (head) => Math.min(widths[head] ?? 0, PHONE_WIDTH),
    turn: { go: () => setFirst(next), to: all.slice(next, next + ON_A_PHONE) },
  };
}
