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
        message: one.instead.length > 0 ? question(one.message) : one.message,
        tone: "text-high",
        others: one.instead,
      };
    });
}

/** What is wrong, without the advice that the answers give. */
export function question(message: string): string {
  const asked = message.replace(/\s*[:;,.]?\s+(?:(?:[Ww]rite|put|type) .*|Did you mean .*)$/s, "");
  return asked || message;
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
