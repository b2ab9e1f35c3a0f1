import type { CoreSet, Schemas } from "@/api/client";
import { asPlanned } from "@/shared/coreRules";

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

/** What was done in a session; an empty log of its plan where nothing is. */
export const sessionOf = (one: LogSession): CoreSession =>
  one.log?.session ?? emptyLog(one.plan?.date ?? "", one.plan?.title ?? "");

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

/** The planned set of a line. */
export const planOf = (one: LogSession, line: Line) =>
  line.at === null ? undefined : one.plan?.sets[line.at];
/** What was done at a line. */
export const doneOf = (one: LogSession, line: Line) =>
  line.done_at === null ? undefined : one.log?.session.sets[line.done_at];

/** All that nothing was said of as planned; what was typed stays, whatever part of it is meant. */
export const restAsPlanned = (one: LogSession, meant: (line: Line) => boolean = () => true) =>
  rebuilt(one.lines, setsOf(one), (line) => {
    const plan = planOf(one, line);
    return plan && line.done_at === null && meant(line) ? [asPlanned(plan)] : null;
  });

/** How many sets were said to be done otherwise than planned. */
export const saidOtherwise = (one: LogSession) =>
  one.lines.filter((line) => line.done_at !== null && line.kind !== "as planned").length;

/** The round that a planned set stands in, from 1; 0 for one outside of rounds. */
export const roundOf = (set: CoreSet | undefined) => set?.round ?? 0;

export const setsOf = (one: LogSession) => one.log?.session.sets ?? [];

/** Whether a part of the plan goes in rounds. */
export const inRounds = (one: LogSession, part: string) =>
  (one.plan?.sets ?? []).some((set) => (set.part ?? "") === part && roundOf(set) > 0);

/** How a line stands below the one before it: what is said above it, once. */
export function headsOf(one: LogSession, index: number) {
  const [before, line] = [one.lines[index - 1], one.lines[index] as Line];
  const part = !before || before.part !== line.part;
  const movement = part || before.movement !== line.movement;
  // In a circuit movements take turns: a head for each set would double the length.
  const alone = movement && one.lines[index + 1]?.movement !== line.movement;
  const round = roundOf(planOf(one, line));
  const newRound = round > 0 && (part || !before || roundOf(planOf(one, before)) !== round);
  return {
    part: part ? line.part : "",
    round: newRound ? round : null,
    movement: movement && !alone,
    alone,
  };
}
