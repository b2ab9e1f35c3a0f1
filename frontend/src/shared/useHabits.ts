import { useCallback, useRef, useState } from "react";
import { habits } from "@/api/habits";
import { type Asked, takenOf, withHabits } from "./asked";

/** A line that was taken as said: as it was typed, as it is now, and what was asked. */
export interface Taken {
  line: number;
  typed: string;
  now: string;
  asked: Asked;
}

/** What is answered again and again: learnt by choosing, taken as said, and asked about again. */
export function useHabits(athlete: number) {
  const [taken, setTaken] = useState<Taken[]>([]);
  const seen = useRef(new Set<string>());
  /** Note what was chosen of a question; the last place behind its texts is the line as it stands. */
  const learn = useCallback(
    (one: Asked, place: number) => {
      const answer = one.answers[place];
      // It is no more than a help: where it does not arrive, the question is asked once more.
      if (answer && one.form) void habits.learn(athlete, { form: one.form, answer }).catch(noOne);
    },
    [athlete],
  );
  /** The text with what is usual; null where nothing of it is. */
  const usual = useCallback((text: string, asked: Asked[]): string | null => {
    const typed = text.split("\n");
    // What was taken back, by undo too, is not taken once more.
    const known = asked.filter(
      (one) => takenOf(one) !== null && !seen.current.has(typed[one.line - 1] ?? ""),
    );
    if (known.length === 0) return null;
    for (const one of known) seen.current.add(typed[one.line - 1] ?? "");
    const whole = withHabits(text, known);
    const lines = [typed, whole.split("\n")] as const;
    setTaken((before) => [
      ...before.filter((old) => !known.some((one) => one.line === old.line)),
      ...known.map((one) => ({
        line: one.line,
        typed: lines[0][one.line - 1] ?? "",
        now: lines[1][one.line - 1] ?? "",
        asked: one,
      })),
    ]);
    return whole;
  }, []);
  /** Ask about that form again from now on; the line is as it was typed. */
  const askAgain = useCallback(
    async (one: Taken) => {
      const { form, answers, habit, meant } = one.asked;
      const answer = habit === null ? undefined : answers[habit];
      if (answer) await habits.forget(athlete, { form, answer });
      // Of the only reading there is nothing to forget: the line is meant as it was typed.
      else meant?.();
      setTaken((before) => before.filter((old) => old !== one));
    },
    [athlete],
  );
  return { taken, learn, usual, askAgain };
}

const noOne = () => undefined;
