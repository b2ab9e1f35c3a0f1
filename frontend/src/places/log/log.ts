import type { Schemas } from "@/api/client";

export type CoreSet = Schemas["Set"];
export type CoreSession = Schemas["Session"];
export type Line = Schemas["LogLine"];
export type LogSession = Schemas["LogSession"];

/** A name for a session of the week that stays when it is logged: its plan's, else its log's. */
export const keyOf = (one: LogSession): string =>
  one.plan ? `plan-${one.plan.id}` : (one.log?.client_id ?? "");

/** A log for a plan that has none yet. */
export const emptyLog = (date: string, title: string): CoreSession => ({
  date,
  title,
  sets: [],
  rpe: null,
  duration_min: null,
  plan: null,
  notes: "",
  pain: [],
});

/** Whether a line is that one, also after others have changed: a planned set is known by its place. */
export const sameLine =
  (line: Line) =>
  (other: Line): boolean =>
    line.at === null ? other.at === null && other.done_at === line.done_at : other.at === line.at;

/** The sets of a log line by line, with those of some lines put otherwise. */
export function rebuilt(
  lines: Line[],
  done: CoreSet[],
  change: (line: Line, at: number) => CoreSet[] | null,
): CoreSet[] {
  return lines.flatMap((line, at) => {
    const other = change(line, at);
    if (other) return other;
    const set = line.done_at === null ? undefined : done[line.done_at];
    return set ? [set] : [];
  });
}
