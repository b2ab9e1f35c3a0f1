import type { Schemas } from "@/api/client";

/** A part of a session on the clock, in seconds from its start. */
export interface Stretch {
  name: string;
  from: number;
  to: number;
}

/** A session on the clock before it starts: when each part begins and ends, in order. */
export function onTheClock(sets: Schemas["FloorSet"][]): Stretch[] {
  const found: Stretch[] = [];
  let at = 0;
  for (const { part, set, takes_s } of sets) {
    const name = part || (set.warm_up ? "warm-up" : "main");
    const last = found.at(-1);
    at += takes_s;
    if (last?.name === name) last.to = at;
    else found.push({ name, from: at - takes_s, to: at });
  }
  return found;
}
