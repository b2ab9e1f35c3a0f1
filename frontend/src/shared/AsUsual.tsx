import { useState } from "react";
import { messageOf } from "@/api/client";
import type { Taken } from "./useHabits";

interface Props {
  taken: Taken[];
  text: string;
  askAgain: (one: Taken) => Promise<void>;
  put: (text: string) => void;
}

/** Lines that were taken as said, as chosen three times before; with the way back. */
export function AsUsual({ taken, text, askAgain, put }: Props) {
  const [error, setError] = useState("");
  const lines = text.split("\n");
  const here = taken.filter((one) => lines[one.line - 1] === one.now);
  if (here.length === 0) return null;
  const again = async (one: Taken) => {
    try {
      await askAgain(one);
      put(lines.map((line, at) => (at === one.line - 1 ? one.typed : line)).join("\n"));
    } catch (problem) {
      setError(messageOf(problem));
    }
  };
  return (
    <ul
      aria-label="Taken as you chose before"
      className="max-h-24 overflow-auto border-t border-rule px-6 py-2 text-sm text-ink-2"
    >
      {here.map((one) => (
        <li key={one.line}>
          Line {one.line}: “{one.typed.trim()}” was read{" "}
          {one.asked.habit === null
            ? "in the one way that makes sense."
            : "as you chose three times before."}
          <button type="button" className="trail-link ml-3 min-h-6" onClick={() => void again(one)}>
            {one.asked.habit === null ? "as typed" : "as typed, and ask again"}
          </button>
        </li>
      ))}
      {error && <li role="alert">{error}</li>}
    </ul>
  );
}
