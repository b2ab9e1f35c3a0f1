import { useState } from "react";
import { useRoom } from "@/frame/useRoom";

/** How many weeks a phone has room for side by side. */
const ON_A_PHONE = 2;

/**
 * The weeks of a block that are seen: all of them, or on a phone as many as fit, with the chosen one
 * among them. They move only when the chosen one would be out of sight.
 *
 * @returns The first week's place, and the place behind the last one.
 */
export function useSeenWeeks(count: number, chosen: number): [from: number, to: number] {
  const phone = useRoom() === "phone";
  const [first, setFirst] = useState(0);
  if (!phone || count <= ON_A_PHONE) return [0, count];
  const from = Math.min(Math.max(first, chosen - ON_A_PHONE + 1), chosen, count - ON_A_PHONE);
  if (from !== first) setFirst(from);
  return [from, from + ON_A_PHONE];
}
