import { describe, expect, it } from "vitest";
import { plainCell } from "@/frame/copyTable";

describe("a cell as a spreadsheet takes it", () => {
  it.each([
    ["25\u202f108", "25108"],
    ["1\u202f962.5", "1962.5"],
    ["−3.9\u202f%", "-3.9%"],
    ["+945", "945"],
    ["0", "0"],
    ["–", ""],
    ["2.2", "2.2"],
    ["Back squat", "Back squat"],
    ["3 × 8", "3 × 8"],
    ["2026-W48", "2026-W48"],
    ["59 of 60", "59 of 60"],
  ])("%s", (shown, taken) => expect(plainCell(shown)).toBe(taken));
});
