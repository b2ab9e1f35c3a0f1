import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { areUnasked, cuesOf, firstOf, ownCueOf } from "@/places/floor/cues";
import { UNBOUNDED, due, run, set } from "./build";

const movement = (name: string, ...titles: string[]): Schemas["FloorMovement"] => ({
  name,
  loads: [],
  easier: null,
  harder: null,
  instead: [],
  tempo: null,
  isometric: false,
  can_be_helped: false,
  bounds: UNBOUNDED,
  cues: titles.map((title) => ({ title, says: `${name} ${title.toLowerCase()}` })),
});

const KNOWN = [movement("Row", "Set up", "Move"), movement("Squat", "Move"), movement("Run")];
const row = set("row", { reps: 5 });
const ada = run([due(row)], { own_cues: [{ title: "Row", says: "Left heel down" }] });
const bo = run([due(row)], { athlete: 2, name: "Bo Test", new_to: ["Row"] });

describe("the words of a set", () => {
  it("begin with what one athlete is told", () => {
    const said = cuesOf(row, [bo, ada], KNOWN);
    expect(said.map((one) => `${one.title}: ${one.says}`)).toEqual([
      "Ada Test: Left heel down",
      "Set up: Row set up",
      "Move: Row move",
    ]);
    expect(firstOf(said, "ready")).toBe(0);
    expect(firstOf(said, "work")).toBe(0);
    expect(ownCueOf(ada, "ROW")).toBe("Left heel down");
    expect(ownCueOf(bo, "Row")).toBe("");
  });

  it("tell how it begins before it, and how it goes while it runs", () => {
    const said = cuesOf(row, [bo], KNOWN);
    expect(firstOf(said, "ready")).toBe(0);
    expect(firstOf(said, "work")).toBe(1);
    expect(firstOf(cuesOf(set("Run", { seconds: 60 }), [bo], KNOWN), "work")).toBe(0);
  });

  it("say whose they are in a combination", () => {
    const both = set("", {
      exercise: null,
      moves: ["Row", "Squat"].map((exercise) => ({
        exercise,
        times: 1,
        implements: 1,
        load_kg: null,
        sides: null,
      })),
    });
    const said = cuesOf(both, [], KNOWN).map((one) => one.title);
    expect(said).toEqual(["Row: Set up", "Row: Move", "Squat: Move"]);
    expect(firstOf(cuesOf(both, [], KNOWN), "work")).toBe(1);
  });

  it("stand there unasked for whoever is new to it or is told something", () => {
    expect(areUnasked(row, [run([due(row)])])).toBe(false);
    expect(areUnasked(row, [run([due(row)]), bo])).toBe(true);
    expect(areUnasked(row, [ada])).toBe(true);
    expect(areUnasked(set("Squat", { reps: 5 }), [ada, bo])).toBe(false);
  });

  it("are none in a session that an older version keeps", () => {
    const before = [{ ...ada, own_cues: undefined, new_to: undefined } as unknown as typeof ada];
    expect(cuesOf(row, before, [])).toEqual([]);
    expect(areUnasked(row, before)).toBe(false);
  });
});
