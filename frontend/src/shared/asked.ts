import type { Schemas } from "@/api/client";

/** A line that is asked about: what can stand there instead, by number. */
export interface Asked {
  key: string;
  line: number;
  column: number;
  length: number;
  /** Where the cursor goes: to what is wrong. */
  wrong: number;
  message: string;
  tone: string;
  /** Texts for `length` characters from `column` on. */
  others: string[];
  /** It is meant as it stands; not where it was not understood. */
  meant?: () => void;
  /** What is asked, what each choice says, and the one that is usual, by its place. */
  form: string;
  answers: string[];
  habit: number | null;
  /** It cannot be meant as it stands, and its one choice is taken. */
  only: boolean;
}

/** Lines that were not understood: those where something can stand in their place, or all. */
export function askedOf(
  mistakes: Schemas["MistakeOut"][],
  text: string,
  { all = false } = {},
): Asked[] {
  const lines = text.split("\n");
  return mistakes
    .filter((one) => all || one.instead.length > 0)
    .map((one) => {
      const line = lines[one.line - 1] ?? "";
      const indent = line.length - line.trimStart().length;
      return {
        key: `${one.line}/${one.column}/${one.message}`,
        line: one.line,
        column: indent + 1,
        length: line.trim().length,
        wrong: one.column,
        message: one.instead.length > 0 ? one.question : one.message,
        tone: "text-high",
        others: one.instead,
        form: one.form,
        answers: one.answers,
        habit: one.habit,
        only: one.only,
      };
    });
}

/** Lines that were read and make little sense. */
export function doubted(
  doubts: Schemas["DoubtOut"][],
  mean: (doubt: Schemas["DoubtOut"]) => void,
): Asked[] {
  return doubts.map((one) => ({
    key: `${one.line}/${one.taken}`,
    line: one.line,
    column: one.column,
    length: one.length,
    wrong: one.column,
    message: one.why,
    tone: "text-caution",
    others: one.others,
    meant: () => mean(one),
    form: one.form,
    answers: one.answers,
    habit: one.habit,
    only: one.only,
  }));
}

/** A text with something else in the place that is asked about. */
export function answered(text: string, one: Place, other: string): string {
  const lines = text.split("\n");
  const old = lines[one.line - 1] ?? "";
  lines[one.line - 1] =
    old.slice(0, one.column - 1) + other + old.slice(one.column - 1 + one.length);
  return lines.join("\n");
}

type Place = Pick<Asked, "line" | "column" | "length">;

/** The choice that is taken without asking: the usual one, or the only one that can be meant. */
export function takenOf(one: Asked): number | null {
  if (one.habit !== null) return one.habit < one.others.length ? one.habit : null;
  return one.only ? 0 : null;
}

/** The text with every answer given that is taken without asking, from below so that no line moves before its turn. */
export function withHabits(text: string, asked: Asked[]): string {
  return asked
    .toSorted((one, other) => other.line - one.line)
    .reduce((all, one) => {
      const taken = one.others[takenOf(one) ?? one.others.length];
      return taken === undefined ? all : answered(all, one, taken);
    }, text);
}
