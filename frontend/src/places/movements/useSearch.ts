import { useMemo } from "react";
import type { Schemas } from "@/api/client";
import { useAddress, useTyped } from "@/frame/useAddress";
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
  const { params, put, clear } = useAddress();
  const [text, setText] = useTyped("find");
  return useMemo(() => {
    const pattern = params.get("pattern") ?? "";
    const muscle = params.get("muscle") ?? "";
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    return {
      text,
      pattern,
      muscle,
      name: params.get("name"),
      put: (key: string, value: string) => put({ [key]: value }),
      setText,
      clear: () => {
        setText("");
        clear();
      },
      keeps: (all: Movement[]) =>
        all.filter(
          (one) =>
            words.every((word) => found(one).includes(word)) &&
            (!pattern || one.pattern === pattern) &&
            (!muscle || one.direct.includes(muscle) || one.indirect.includes(muscle)),
        ),
    };
  }, [params, put, clear, text, setText]);
}

export type Search = ReturnType<typeof useSearch>;
