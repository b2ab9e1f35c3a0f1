import { useEffect, useRef } from "react";
import { callAt } from "./calls";
import type { Run, State } from "./run";
import { speak, tone } from "./sound";

/** What is heard of a run: each call once, when its moment comes. */
export function useCalls(state: State | null, now: number, runs: Run[]): void {
  const said = useRef("");
  useEffect(() => {
    const call = state && callAt(state, runs, now);
    if (!call || said.current === call.key) return;
    said.current = call.key;
    if (call.tone) tone(call.tone);
    speak(call.says);
  }, [state, now, runs]);
}
