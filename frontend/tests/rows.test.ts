import { describe, expect, it } from "vitest";
import { NEW, type Placed, dragged, groups, moved, placed } from "@/places/write/rows";

/** Rows by letter: small ones are turns of the rounds before them, R are rounds, S sets, P a part. */
const rows = (letters: string): (Placed & { letter: string })[] =>
  [...letters].map((letter) => {
    const row =
      letter === "R"
        ? NEW.rounds()
        : letter === "P"
          ? NEW.part()
          : letter === letter.toLowerCase()
            ? NEW.turn()
            : NEW.sets();
    return { ...placed(row), letter };
  });
const spelled = (all: Placed[]) =>
  all.map((one) => (one as Placed & { letter: string }).letter).join("");

describe("rows of the form", () => {
  it("move as groups: rounds take their turns along", () => {
    expect(groups(rows("SRabP"))).toEqual([
      { from: 0, to: 0 },
      { from: 1, to: 3 },
      { from: 4, to: 4 },
    ]);
    // A turn without rounds before it is on its own.
    expect(groups(rows("Sa"))).toEqual([
      { from: 0, to: 0 },
      { from: 1, to: 1 },
    ]);
  });

  it.each([
    ["STU", 0, 1, "TSU"],
    ["STU", 2, -1, "SUT"],
    ["STU", 0, -1, "STU"],
    ["STU", 2, 1, "STU"],
    ["SRab", 1, -1, "RabS"],
    ["SRab", 0, 1, "RabS"],
    ["Rabc", 1, 1, "Rbac"],
    ["Rabc", 3, -1, "Racb"],
    ["Rabc", 1, -1, "Rabc"],
    ["RabS", 2, 1, "RabS"],
  ] as const)("%s: the one at %d by %d gives %s", (letters, at, step, result) => {
    expect(spelled(moved(rows(letters), at, step))).toBe(result);
  });

  it.each([
    ["STUV", 0, 3, "TUVS"],
    ["STUV", 3, 0, "VSTU"],
    ["STUV", 1, 1, "STUV"],
    ["SRabV", 4, 0, "VSRab"],
    ["SRabV", 1, 4, "SVRab"],
    ["Rabc", 1, 3, "Rbca"],
    ["SRab", 2, 0, "SRab"],
  ] as const)("%s: dragged from %d onto %d gives %s", (letters, from, onto, result) => {
    expect(spelled(dragged(rows(letters), from, onto))).toBe(result);
  });

  it("are never lost or doubled by a move", () => {
    const all = rows("PSRabTRcdU");
    for (let at = 0; at < all.length; at += 1) {
      for (const step of [-1, 1] as const) {
        const next = moved(all, at, step);
        expect(next.map((one) => one.id).sort((a, b) => a - b)).toEqual(
          all.map((one) => one.id).sort((a, b) => a - b),
        );
      }
      for (let onto = 0; onto < all.length; onto += 1)
        expect([...spelled(dragged(all, at, onto))].sort().join("")).toBe(
          [...spelled(all)].sort().join(""),
        );
    }
  });

  it("have names of their own", () => {
    const all = rows("SS");
    expect(new Set(all.map((one) => one.id)).size).toBe(2);
  });
});
