import type { Schemas } from "@/api/client";

export type CoreSet = Schemas["Set"];
export type CoreSession = Schemas["Session"];
export type Line = Schemas["LogLine"];

/** What only a plan says of a set. */
const OF_PLANS = new Set(["reps_to", "note"]);

/** What stands for a planned set when it was done as planned. */
export function asPlanned(set: CoreSet): CoreSet {
  return Object.fromEntries(Object.entries(set).filter(([key]) => !OF_PLANS.has(key))) as CoreSet;
}

/** A log for a plan that has none yet. */
export const emptyLog = (date: string, title: string): CoreSession => ({
  date, title, sets: [], rpe: null, duration_min: null, plan: null, notes: "", pain: [],
});

/** The sets of a log line by line, with those of some lines put otherwise. */
export function rebuilt(lines: Line[], done: CoreSet[], change: (line: Line, at: number) => CoreSet[] | null): CoreSet[] {
  return lines.flatMap((line, at) => {
    const other = change(line, at);
    if (other) return other;
    const set = line.done_at === null ? undefined : done[line.done_at];
    return set ? [set] : [];
  });
}
