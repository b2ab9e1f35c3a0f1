import { useMemo, useState } from "react";
import type { Schemas } from "@/api/client";
import { askedOf, doubted } from "@/shared/asked";
import { useMeant } from "@/shared/useMeant";

/** The line in hand, and what is asked about: a line when it is left, not while it is typed. */
export function useDoubts(athlete: number, answer: Schemas["Written"] | null, text: string) {
  const [line, setLine] = useState(1);
  const [touched, setTouched] = useState(false);
  const [typed, setTyped] = useState(false);
  const { meant, add } = useMeant(athlete);
  const found = answer?.doubts;
  const doubts = useMemo(
    () =>
      (found ?? []).filter(
        (one) =>
          !(touched && one.line === line) &&
          !meant.includes(one.taken) &&
          // As it stands, as so often before.
          !(one.habit !== null && one.habit === one.others.length),
      ),
    [found, touched, line, meant],
  );
  const mistakes = (answer?.mistakes ?? []).filter((one) => !(touched && one.line === line));
  return {
    line,
    doubts,
    /** What has answers, in order of line. */
    asked: [...askedOf(mistakes, text), ...doubted(doubts, (doubt) => add(doubt.taken))].sort(
      (one, other) => one.line - other.line,
    ),
    /** The cursor is in a line: in another one, nothing was typed yet. */
    goTo: (at: number) => {
      if (at !== line) setTouched(false);
      setLine(at);
    },
    touch: () => {
      setTouched(true);
      setTyped(true);
    },
    /** Whether something was typed since the session was opened. */
    typed,
  };
}
