import { useState } from "react";

/** Something as it is stored, and the revision it has. */
export interface Stored<T> {
  value: T;
  revision: number;
}

/**
 * Something stored that is changed in hand and kept as a whole. What another window keeps meanwhile
 * is shown at once, unless what is in hand would be lost by it: then `isOlder` says so.
 */
export function useInHand<T>(stored: Stored<T>) {
  const [base, setBase] = useState(stored);
  const [inHand, setInHand] = useState(stored.value);
  const changed = JSON.stringify(inHand) !== JSON.stringify(base.value);
  const take = (next: Stored<T>) => {
    setBase(next);
    setInHand(next.value);
  };
  const isOlder = stored.revision > base.revision;
  if (isOlder && !changed) take(stored);
  return {
    inHand,
    put: setInHand,
    changed,
    isOlder,
    base,
    /** It is kept, or another is in force: go on from there. */
    take,
    /** Let go of what is in hand. */
    discard: () => take(isOlder ? stored : base),
  };
}
