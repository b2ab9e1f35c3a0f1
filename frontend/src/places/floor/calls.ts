import { type Clock, COUNT_IN_S, LATE_S, byClock, elapsed, isOfTwo, lasts, late } from "./clock";
import { type Run, type State, leader, planned, sideNow, wanted } from "./run";

/** What is heard at a moment: a tone of its own for each kind, and words where the device speaks. */
export interface Call {
  /** The moment: what was said of it is not said again. */
  key: string;
  tone: "start" | "count" | "half" | "side" | "end" | null;
  says: string;
}

/** Below this a half, or the last ten seconds, would be called on top of the beginning. */
const WORTH_A_HALF_S = 20;
const WORTH_TEN_S = 30;
const TEN_S = 10;
const COUNT_FROM = 3;

/** The call that is due at a time; null where there is nothing to say. */
export function callAt(state: State, runs: Run[], now: number): Call | null {
  const { clock, steps } = state;
  if (!state.begun || clock.paused !== null) return null;
  const phase = `${clock.step}/${clock.phase}/${clock.since}`;
  const seconds = lasts(clock, steps, leader(runs).sets);
  const within = seconds === null ? null : during(clock, elapsed(clock, now), seconds);
  return within
    ? { ...within, key: `${phase}/${within.key}` }
    : { ...begins(state, runs), key: phase };
}

/** What is called while a phase goes on; null before the first of it. */
function during({ phase }: Clock, gone: number, seconds: number): Call | null {
  const left = Math.ceil(seconds - gone);
  if (left >= 1 && left <= COUNT_FROM && seconds > COUNT_FROM)
    return { key: `${left}`, tone: "count", says: "" };
  if (left <= TEN_S && seconds >= WORTH_TEN_S)
    return { key: "ten", tone: null, says: "Ten seconds" };
  if (phase !== "work" || gone < seconds / 2) return null;
  return seconds >= WORTH_A_HALF_S ? { key: "half", tone: "half", says: "Halfway" } : null;
}

/** What is called when a phase begins. */
function begins(state: State, runs: Run[]): Omit<Call, "key"> {
  const { clock } = state;
  const set = planned(leader(runs), state.steps, clock.step);
  switch (clock.phase) {
    case "count-in":
      return { tone: null, says: `${whatComes(state, runs, clock.step)} In ${COUNT_IN_S}.` };
    case "work": {
      if (!byClock(set)) return { tone: null, says: "" };
      const behind = late(clock, state.steps, leader(runs).sets);
      return {
        tone: "start",
        says: [
          isOfTwo(set) ? `Go, ${sideNow(state)}` : "Go",
          behind >= LATE_S && `, ${Math.round(behind)} seconds late`,
        ]
          .filter(Boolean)
          .join(""),
      };
    }
    case "turn":
      return { tone: "side", says: `Change sides: ${sideNow(state)}` };
    case "rest":
      return {
        tone: "end",
        says: `Rest ${Math.round(lasts(clock, state.steps, leader(runs).sets) ?? 0)} seconds, then: ${whatComes(state, runs, clock.step + 1)}`,
      };
    case "over":
      return { tone: "end", says: "Well done. Write it down." };
    default:
      return { tone: null, says: whatComes(state, runs, clock.step) };
  }
}

/** A set to come, as somebody would call it: the round, the movement, and to one alone the dose. */
function whatComes(state: State, runs: Run[], step: number): string {
  const lead = leader(runs);
  const set = planned(lead, state.steps, step);
  const due = wanted(lead, state, step);
  if (!set || !due) return "";
  const before = planned(lead, state.steps, step - 1);
  const round =
    set.round !== null && set.round !== before?.round
      ? `Round ${set.round} of ${set.rounds}. `
      : "";
  const last = step === state.steps.length - 1 ? "Last one. " : "";
  // In a group the loads are everybody's own.
  const dose = runs.length === 1 ? `, ${spoken(due.says)}` : "";
  return `${last}${round}${due.movement}${dose}.`;
}

/** Signs as they are said. */
export const spoken = (text: string): string =>
  text
    .replace(/(\d)–(\d)/g, "$1 to $2")
    .replace(/×/g, "times")
    .replace(/\bkg\b/g, "kilos")
    .replace(/\blb\b/g, "pounds")
    .replace(/\b(\d+):(\d\d)\b/g, (_, minutes: string, seconds: string) =>
      [
        Number(minutes) > 0 && `${minutes} minute${Number(minutes) === 1 ? "" : "s"}`,
        Number(seconds) > 0 && `${Number(seconds)} seconds`,
      ]
        .filter(Boolean)
        .join(" "),
    )
    .replace(/\bRPE\b/g, "R P E")
    .replace(/(\d) s\b/g, "$1 seconds");
