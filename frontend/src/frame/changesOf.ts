import type { Schemas } from "@/api/client";

type Entry = Schemas["JournalLine"];

/** Entries one behind the other that are of one change stand together. */
export function changesOf(entries: Entry[]): Entry[][] {
  const found: Entry[][] = [];
  for (const one of entries) {
    const last = found.at(-1);
    if (one.change && last?.[0]?.change === one.change) last.push(one);
    else found.push([one]);
  }
  return found;
}
