import { describe, expect, it } from "vitest";
import { canSplit, joinPieces, split, withPiece } from "@/places/floor/pieces";
import { told } from "@/places/floor/run";
import { set } from "./build";

describe("a set whose load was changed in the middle", () => {
  const squat = set("Squat", { reps: 9, load_kg: 60, rpe: 9 });

  it("is one set of pieces, each with its own, and one set again", () => {
    const two = withPiece(split(squat), 1, { load_kg: 50, reps: 3 });
    expect(told(two)).toBe("4 reps, at 60 kg, then 3 reps, at 50 kg, RPE 9");
    expect([two.reps, two.load_kg]).toEqual([null, 0]);
    expect(joinPieces(two)).toMatchObject({ loads: null, reps: 7, load_kg: 60, rpe: 9 });
    expect(joinPieces(split(squat))).toEqual({ ...squat, partial_reps: 0 });
  });

  it("is divided by its seconds where it has no reps", () => {
    const carry = split(set("Carry", { reps: null, seconds: 45, load_kg: 24, implements: 2 }));
    expect(told(carry)).toBe("22 s, at 2 × 24 kg, then 23 s, at 2 × 24 kg");
    expect(joinPieces(carry).seconds).toBe(45);
  });

  it("keeps its time where it has both", () => {
    const timed = set("Press-up", { reps: 12, seconds: 30 });
    expect(joinPieces(split(timed))).toMatchObject({ reps: 12, seconds: 30 });
  });

  it("has a middle only where there is something of one movement", () => {
    expect(canSplit(squat)).toBe(true);
    expect(canSplit(set("Squat", { reps: 1 }))).toBe(false);
    expect(canSplit({ ...squat, exercise: null })).toBe(false);
    expect(canSplit({ ...squat, load_kg: -20 })).toBe(false);
  });
});
