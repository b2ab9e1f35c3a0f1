import { useState } from "react";
import type { Schemas } from "@/api/client";
import type { CoreSet } from "@/api/client";
import { beyond, fitting } from "@/shared/coreRules";
import { type Piece, joinPieces, split, withPiece } from "./pieces";

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
  /** The load that comes next in the kit; where nothing is known of it, 2.5 kg on. */
  const next = (from: number, by: 1 | -1) =>
    helped || loads.length === 0
      ? Math.max(0, Math.round((from + by * 2.5) * 100) / 100)
      : ((by > 0
          ? loads.find((one) => one > from + 0.01)
          : loads.findLast((one) => one < from - 0.01)) ?? from);
  const step = (by: 1 | -1) => putLoad(next(load, by));
  // Of pieces each choice is of this set alone.
  const divide = () => take(split(now), false);
  const putPiece = (at: number, part: Partial<Piece>) => take(withPiece(now, at, part), false);
  const putPieceLoad = (at: number, kg: number, unit?: "kg" | "lb") => {
    const next = withPiece(now, at, { load_kg: kg });
    take(unit ? { ...next, unit: unit === "lb" ? "lb" : null } : next, false);
  };
  const join = () => take(joinPieces(now), false);
  const swap = (exercise: string) => {
    const known = names.find((one) => one.toLowerCase() === exercise.trim().toLowerCase());
    if (!known) return;
    const other = movements.find((one) => one.name === known);
    const canBe = helped && other?.can_be_helped !== false;
    setHelped(canBe);
    const kg = helped && !canBe ? 0 : (now.load_kg ?? 0);
    // A station that is taken, a level that is too hard: that holds for the sets to come. What is
    // done already was done as it was: only what somebody says of it is changed.
    take(
      { ...now, exercise: known, moves: null, load_kg: kg && fitting(kg, other?.loads ?? []) },
      isDone ? ahead : toCome > 0,
    );
  };
  const doubt = beyond(now, movement?.bounds);
  return {
    now,
    ahead,
    movement,
    load,
    helped,
    doubt,
    take,
    change,
    putLoad,
    next,
    divide,
    putPiece,
    putPieceLoad,
    join,
    help,
    step,
    swap,
  };
}

export type SetInHand = ReturnType<typeof useSetInHand>;
