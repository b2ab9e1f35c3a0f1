import { expect, test } from "vitest";
import { type Asked, answered, askedOf, takenOf, withHabits } from "@/shared/asked";

test("an answer stands in the place of its line, behind the indent", () => {
  const text = "2 rounds:\n  Lunges 8";
  const [one] = askedOf(
    [
      {
        line: 2,
        column: 3,
        length: 6,
        message: "no movement is called 'Lunges'. Did you mean Side lunge?",
        question: "no movement is called 'Lunges'",
        instead: ["Side lunge 8"],
        form: "written",
        answers: ["lunges → side lunge"],
        habit: null,
        only: false,
      },
      {
        line: 1,
        column: 1,
        length: 2,
        message: "nothing to say",
        question: "nothing to say",
        instead: [],
        form: "written",
        answers: [],
        habit: null,
        only: false,
      },
    ],
    text,
  );
  expect(one?.message).toBe("no movement is called 'Lunges'");
  expect(one && answered(text, one, "Side lunge 8")).toBe("2 rounds:\n  Side lunge 8");
});

test("usual answers are given, and nothing else is touched", () => {
  const asking = (line: number, others: string[], habit: number | null): Asked => ({
    key: `${line}`,
    line,
    column: 1,
    length: 4,
    wrong: 1,
    message: "",
    tone: "",
    others,
    form: "written",
    answers: others,
    habit,
    only: line === 4,
  });
  const asked = [asking(1, ["one", "two"], 1), asking(2, ["three"], null), asking(3, ["four"], 1)];
  expect(withHabits("aaaa\nbbbb\ncccc", asked)).toBe("two\nbbbb\ncccc");
  // What cannot be meant otherwise is taken, too; unless it is usual as it stands.
  const only = [asking(4, ["five"], null)];
  expect(withHabits("aaaa\nbbbb\ncccc\ndddd", only)).toBe("aaaa\nbbbb\ncccc\nfive");
  expect(takenOf(asking(4, ["five"], 1))).toBeNull();
});
