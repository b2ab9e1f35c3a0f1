import type { CoreSet } from "@/api/client";

/* A set whose load was changed in the middle is one set of pieces. */

export type Piece = NonNullable<CoreSet["loads"]>[number];

/**
 * Whether there is a middle: a combination is loaded as one, help is no load, and of nothing there is
 * none.
 */
export const canSplit = (set: CoreSet): boolean =>
  Boolean(set.exercise) && (set.load_kg ?? 0) >= 0 && (set.reps ?? set.seconds ?? 0) > 1;

/** The set in two pieces, half and half, to be told apart. */
export function split(set: CoreSet): CoreSet {
  const halves = (all: number | null | undefined): [number | null, number | null] =>
    all == null ? [null, null] : [Math.floor(all / 2), Math.ceil(all / 2)];
  const [reps, seconds] = [halves(set.reps), halves(set.seconds)];
  const piece = (at: 0 | 1): Piece => ({
    reps: reps[at],
    seconds: seconds[at],
    load_kg: set.load_kg ?? 0,
    implements: set.implements ?? 1,
  });
  const own = { reps: null, seconds: null, load_kg: 0, implements: 1, partial_reps: 0 };
  return { ...set, ...own, loads: [piece(0), piece(1)] };
}

/** One of its pieces otherwise. */
export const withPiece = (set: CoreSet, at: number, part: Partial<Piece>): CoreSet => ({
  ...set,
  loads: (set.loads ?? []).map((piece, place) => (place === at ? { ...piece, ...part } : piece)),
});

/** One load after all, that of the first piece, for all that was done. */
export function joinPieces(set: CoreSet): CoreSet {
  const pieces = set.loads ?? [];
  const sum = (key: "reps" | "seconds") =>
    pieces.every((piece) => piece[key] == null)
      ? null
      : pieces.reduce((all, piece) => all + (piece[key] ?? 0), 0);
  return {
    ...set,
    loads: null,
    reps: sum("reps"),
    seconds: sum("seconds"),
    load_kg: pieces[0]?.load_kg ?? 0,
    implements: pieces[0]?.implements ?? 1,
  };
}
