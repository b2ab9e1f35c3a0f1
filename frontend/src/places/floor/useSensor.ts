import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "@/api/client";

/** A rep as the sensor saw it; the little protocol is told in docs/sensor.md. */
export interface Rep {
  number: number;
  at_s: number;
  lowering_s: number;
  pause_bottom_s: number;
  lifting_s: number;
  pause_top_s: number;
}

const seconds = (rep: Rep) => rep.lowering_s + rep.pause_bottom_s + rep.lifting_s + rep.pause_top_s;

/** What a series of reps comes to. */
export function measured(reps: Rep[]): { reps: number; tension: number; tempo: string } | null {
  if (reps.length === 0) return null;
  const mean = (of: (rep: Rep) => number) =>
    (reps.reduce((sum, rep) => sum + of(rep), 0) / reps.length).toFixed(1);
  return {
    reps: reps.length,
    tension: Math.round(reps.reduce((sum, rep) => sum + seconds(rep), 0) * 10) / 10,
    tempo: [
      mean((rep) => rep.lowering_s),
      mean((rep) => rep.pause_bottom_s),
      mean((rep) => rep.lifting_s),
      mean((rep) => rep.pause_top_s),
    ].join("-"),
  };
}

/** The reps of the set in hand as they come in, while the sensor is on. */
export function useSensor(
  on: boolean,
  working: boolean,
  step: number,
  set: Schemas["FloorSet"] | undefined,
  tempo: string,
) {
  const [reps, setReps] = useState<Rep[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const latest = useRef<Rep[]>([]);
  const wanted =
    set?.set.reps ??
    (set?.seconds && set.cycle_s ? Math.max(1, Math.floor(set.seconds / set.cycle_s)) : 0);
  useEffect(() => {
    if (!on || !working || wanted < 1) return undefined;
    latest.current = [];
    const query = new URLSearchParams({ reps: String(wanted), tempo, seed: String(step + 1) });
    const source = new EventSource(`/api/floor/sensor?${query}`);
    source.onopen = () => {
      setReps([]);
      setProblem(null);
    };
    source.onmessage = (event: MessageEvent<string>) => {
      latest.current = [...latest.current, JSON.parse(event.data) as Rep];
      setReps(latest.current);
    };
    source.addEventListener("end", () => source.close());
    source.onerror = () => {
      source.close();
      setProblem("The sensor is not connected: count by hand.");
    };
    return () => source.close();
  }, [on, working, step, wanted, tempo]);
  const taken = useCallback(() => latest.current, []);
  return { reps, problem, taken };
}
