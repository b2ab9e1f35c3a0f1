import { useState } from "react";
import type { Schemas } from "@/api/client";
import type { CoreSet } from "@/api/client";
import { beyond, fitting } from "@/shared/coreRules";

interface Opened {
  set: CoreSet;
  isDone: boolean;
  movements: Schemas["FloorMovement"][];
  names: string[];
  toCome: number;
  put: (set: CoreSet | null, ahead: boolean) => void;
}

/** A set while it is changed: each choice is taken at once, for the sets to come too if so chosen. */
export function useSetInHand({ set, isDone, movements, names, toCome, put }: Opened) {
  const [now, setNow] = useState(set);
  const [ahead, setAhead] = useState(false);
  const movement = movements.find(
    (one) => one.name.toLowerCase() === (now.exercise ?? "").toLowerCase(),
  );
  const take = (next: CoreSet, further: boolean) => {
    setNow(next);
    setAhead(further);
    put(next, further);
  };
  const change = (part: Partial<CoreSet>) => take({ ...now, ...part }, ahead);
  const loads = movement?.loads ?? [];
  const [helped, setHelped] = useState((set.load_kg ?? 0) < 0);
  const load = Math.abs(now.load_kg ?? 0);
  /** Help is a negative load: it is shown, stepped and typed as so much help. */
  const putLoad = (kg: number, unit?: "kg" | "lb") =>
    change({ load_kg: helped ? -kg : kg, ...(unit && { unit: unit === "lb" ? "lb" : undefined }) });
  const help = (on: boolean) => {
    setHelped(on);
    if (load) change({ load_kg: on ? -load : load });
  };
  const step = (by: 1 | -1) => {
    if (helped || loads.length === 0) {
      putLoad(Math.max(0, Math.round((load + by * 2.5) * 100) / 100));
      return;
    }
    const next =
      by > 0 ? loads.find((one) => one > load + 0.01) : loads.findLast((one) => one < load - 0.01);
    if (next !== undefined) putLoad(next);
  };
  const swap = (exercise: string) => {
    const known = names.find((one) => one.toLowerCase() === exercise.trim().toLowerCase());
    if (!known) return;
    const next = movements.find((one) => one.name === known);
    const canBe = helped && next?.can_be_helped !== false;
    setHelped(canBe);
    const kg = helped && !canBe ? 0 : (now.load_kg ?? 0);
    // A station that is taken, a level that is too hard: that holds for the sets to come. What is
    // done already was done as it was: only what somebody says of it is changed.
    take(
      { ...now, exercise: known, moves: null, load_kg: kg && fitting(kg, next?.loads ?? []) },
      isDone ? ahead : toCome > 0,
    );
  };
  const doubt = beyond(now, movement?.bounds);
  return { now, ahead, movement, load, helped, doubt, take, change, putLoad, help, step, swap };
}

export type SetInHand = ReturnType<typeof useSetInHand>;
