import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { plain } from "./typed";

type Movement = Schemas["MovementOut"];

/** All that a movement can be found by. */
const found = (one: Movement) =>
  [
    one.name,
    ...one.aliases,
    plain(one.pattern),
    one.side ?? "",
    ...one.direct.map(plain),
    ...one.indirect.map(plain),
    ...one.kit,
  ]
    .join(" ")
    .toLowerCase();

/** What is looked for: words, a pattern, a muscle; and the movement that is open. The address keeps them. */
export function useSearch() {
  const [params, setParams] = useSearchParams();
  const [text, setText] = useState("");
  return useMemo(() => {
    const pattern = params.get("pattern") ?? "";
    const muscle = params.get("muscle") ?? "";
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    return {
      text,
      setText,
      pattern,
      muscle,
      name: params.get("name"),
      put: (key: string, value: string) =>
        setParams(
          (now) => {
            const next = new URLSearchParams(now);
            if (value) next.set(key, value);
            else next.delete(key);
            return next;
          },
          { replace: true },
        ),
      clear: () => {
        setText("");
        setParams({}, { replace: true });
      },
      keeps: (all: Movement[]) =>
        all.filter(
          (one) =>
            words.every((word) => found(one).includes(word)) &&
            (!pattern || one.pattern === pattern) &&
            (!muscle || one.direct.includes(muscle) || one.indirect.includes(muscle)),
        ),
    };
  }, [params, setParams, text]);
}

export type Search = ReturnType<typeof useSearch>;
