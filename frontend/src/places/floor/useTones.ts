import { useEffect, useRef } from "react";
import { elapsed, lasts } from "./clock";
import type { Run, State } from "./run";
import { tone } from "./sound";

/** Tones of the last three seconds of a phase, and of its end; said once each. */
export function useTones(state: State | null, now: number, lead: Run): void {
  const said = useRef("");
  useEffect(() => {
    if (!state?.begun || state.clock.paused !== null) return;
    const seconds = lasts(state.clock, state.steps, lead.sets);
    const left = seconds === null ? null : Math.ceil(seconds - elapsed(state.clock, now));
    const key = `${state.clock.step}/${state.clock.phase}/${state.clock.since}`;
    const counting = left !== null && left >= 1 && left <= 3;
    const mark = `${key}/${counting ? left : ""}`;
    if (said.current === mark) return;
    const begins = !said.current.startsWith(`${key}/`);
    said.current = mark;
    if (counting) tone("low");
    else if (begins && state.clock.phase === "work" && seconds !== null) tone("high");
    else if (begins && state.clock.phase === "rest") tone("low");
  }, [state, now, lead]);
}
