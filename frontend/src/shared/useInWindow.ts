import { useEffect, useState } from "react";
import { inWindow } from "@/api/remember";

function leftOf<T>(name: string, begun: T): T {
  try {
    const left = inWindow.get(name);
    return left === null ? begun : (JSON.parse(left) as T);
  } catch {
    return begun;
  }
}

/** A state that outlives leaving the page, a reload and the end of a session, in this window. */
export function useInWindow<T>(name: string, begun: T) {
  const kept = `dialback.typed/${name}`;
  const [value, put] = useState(() => leftOf(kept, begun));
  const isBegun = JSON.stringify(value) === JSON.stringify(begun);
  useEffect(() => {
    if (isBegun) inWindow.drop(kept);
    else inWindow.set(kept, JSON.stringify(value));
  }, [kept, value, isBegun]);
  return [value, put] as const;
}
