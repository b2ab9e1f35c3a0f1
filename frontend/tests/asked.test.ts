import { expect, test } from "vitest";
import { answered, askedOf, question } from "@/shared/asked";

test("a question leaves out the advice that the answers give", () => {
  expect(question("8 what? Write '8 kg' for a load, or 'rest 8 s'")).toBe("8 what?");
  expect(question("no movement is called 'Lunges'. Did you mean Side lunge?")).toBe(
    "no movement is called 'Lunges'",
  );
  expect(question("'max reps' is not understood here: put a remark in brackets, '(max)'")).toBe(
    "'max reps' is not understood here",
  );
  expect(question("write 'rest 3 min', or 'in 3 min'")).toBe("write 'rest 3 min', or 'in 3 min'");
});

test("an answer stands in the place of its line, behind the indent", () => {
  const text = "2 rounds:\n  Lunges 8";
  const [one] = askedOf(
    [
      { line: 2, column: 3, length: 6, message: "Did you mean?", instead: ["Side lunge 8"] },
      { line: 1, column: 1, length: 2, message: "nothing to say", instead: [] },
    ],
    text,
  );
  expect(one && answered(text, one, "Side lunge 8")).toBe("2 rounds:\n  Side lunge 8");
});
