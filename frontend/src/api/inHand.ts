import { useEffect, useState } from "react";
import { inWindow } from "./remember";

/** Something as it is stored, and the revision it has. */
export interface Stored<T> {
  value: T;
  revision: number;
}

/** What was in hand when the page went, with what it had been begun on. */
interface Left<T> {
  base: Stored<T>;
  inHand: T;
}

function leftOf<T>(name: string): Left<T> | null {
  try {
    return JSON.parse(inWindow.get(name) ?? "null") as Left<T> | null;
  } catch {
    return null;
  }
}

/**
 * Something stored that is changed in hand and kept as a whole. What another window keeps meanwhile
 * is shown at once, unless what is in hand would be lost by it: then `isOlder` says so, and one of
 * the two is chosen. What is in hand outlives a reload, under its `name`.
 */
export function useInHand<T>(stored: Stored<T>, name: string) {
  const kept = `dialback.in-hand/${name}`;
  const [left] = useState(() => leftOf<T>(kept));
  const [base, setBase] = useState(left?.base ?? stored);
  const [inHand, setInHand] = useState(left?.inHand ?? stored.value);
  const changed = JSON.stringify(inHand) !== JSON.stringify(base.value);
  useEffect(() => {
    if (changed) inWindow.set(kept, JSON.stringify({ base, inHand }));
    else inWindow.drop(kept);
  }, [kept, changed, base, inHand]);
  const take = (next: Stored<T>) => {
    setBase(next);
    setInHand(next.value);
  };
  const isOlder = stored.revision > base.revision;
  // What is stored may be this very save, whose answer was lost: then it is no other's.
  if (isOlder && (!changed || JSON.stringify(inHand) === JSON.stringify(stored.value)))
    take(stored);
  return {
    inHand,
    put: setInHand,
    changed,
    isOlder,
    base,
    /** What is stored by now. */
    stored,
    /** It is kept, or another is in force: go on from there. */
    take,
    /** Let go of what is in hand. */
    discard: () => {
      // At once: whoever leaves without keeping it does not find it again.
      inWindow.drop(kept);
      take(isOlder ? stored : base);
    },
    /** Go on with what is in hand, over what another window has kept. */
    insist: () => setBase(stored),
  };
}
