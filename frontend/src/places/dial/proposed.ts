import type { Schemas } from "@/api/client";
import type { Sessions } from "./draft";

export type Step = Schemas["StepOut"];

/** What a proposal changes, by where it stands in the draft: lines of a session, and new ones. */
export interface Proposed {
  lines: Map<number, Step>;
  added: Step[];
}

/**
 * The steps of a proposal by session and line of the draft. The core leaves out what has no sets, and
 * counts the rest; a step that does not fit the draft as it now stands is of an older one.
 */
export function proposed(steps: Step[], sessions: Sessions): Map<number, Proposed> {
  const found = new Map<number, Proposed>();
  const days = placesOf(sessions, (session) => session.lines.some((line) => line.count > 0));
  for (const step of steps) {
    const at = days[step.session];
    const session = at === undefined ? undefined : sessions[at];
    if (at === undefined || !session || session.date !== step.day) continue;
    const own: Proposed = found.get(at) ?? { lines: new Map(), added: [] };
    found.set(at, own);
    if (step.line === null) {
      own.added.push(step);
      continue;
    }
    const number = placesOf(session.lines, (line) => line.count > 0)[step.line - 1];
    if (number !== undefined && session.lines[number]?.count === step.count_from)
      own.lines.set(number, step);
  }
  return found;
}

const placesOf = <T>(all: readonly T[], keeps: (one: T) => boolean): number[] =>
  all.flatMap((one, at) => (keeps(one) ? [at] : []));

/** The steps of a proposal in the bundles that are taken together, the earliest first. */
export function bundled(steps: Step[]): Step[][] {
  const found = new Map<number, Step[]>();
  for (const step of steps) found.set(step.bundle, [...(found.get(step.bundle) ?? []), step]);
  return [...found.values()];
}

/** A step as it is declined: more or fewer sets of its movement. */
export const asDeclined = (step: Step): Schemas["DeclinedStep"] => ({
  movement: step.movement,
  direction: step.count_to > step.count_from ? "more" : "fewer",
});

/** A step as the core takes it. */
export const asTaken = (step: Step): Schemas["TakeStep"] => ({
  session: step.session,
  line: step.line,
  movement: step.movement,
  count: step.count_to,
  reason: step.reason,
});
