import { expect, test } from "vitest";
import { withoutControls } from "@/places/write/editor";

test("what word processors paste becomes lines, and controls are left out", () => {
  expect(withoutControls("Press 3 × 5\u000bRow 3 × 8\u2028Squat 5")).toBe(
    "Press 3 × 5\nRow 3 × 8\nSquat 5",
  );
  expect(withoutControls("a\u0000b\u001b[2J\u009b")).toBe("ab[2J");
  expect(withoutControls("tab\tand\nlines 🏋")).toBe("tab\tand\nlines 🏋");
});
