import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { Notice } from "@/shared/Answers";
import type { Asked } from "@/shared/asked";

interface Props {
  answer: Schemas["Written"];
  go: (at: { line: number; column: number }) => void;
  /** Write a load of the kit in place of one that it does not have. */
  take: (miss: Schemas["KitMiss"], text: string) => void;
  /** How many are asked about: they are told with their answers. */
  asked: Asked[];
  children: ReactNode;
}

/** What is wrong in the text, restricted, asked about, and not in the kit: line by line. */
export function Notices({ answer, go, take, asked, children }: Props) {
  const told = answer.mistakes.filter((one) => !asked.some((other) => other.line === one.line));
  const others = answer.restricted.length + answer.kit.length + asked.length;
  if (told.length + others === 0) return null;
  return (
    <ul
      aria-label="Mistakes"
      className="max-h-36 overflow-auto border-t border-rule px-6 py-2 text-sm"
    >
      {[...told, ...answer.restricted].map((one, at) => (
        <Notice
          key={at}
          line={one.line}
          message={one.message}
          tone="text-high"
          go={() => go(one)}
        />
      ))}
      {children}
      {answer.kit.map((miss) => (
        <Notice
          key={`${miss.line}/${miss.column}`}
          line={miss.line}
          message={miss.message}
          tone="text-caution"
          go={() => go(miss)}
        >
          {miss.choices.map((choice) => (
            <button
              key={choice.text}
              type="button"
              className="trail-link ml-2"
              onClick={() => take(miss, choice.text)}
            >
              {choice.text}
            </button>
          ))}
        </Notice>
      ))}
    </ul>
  );
}
