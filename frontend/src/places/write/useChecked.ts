import { useEffect, useRef, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { writing } from "@/api/write";
import type { Sheet } from "./sheet";

const CHECK_AFTER_MS = 50;

/** What the text comes to, and what is wrong in it, asked for as it is typed. */
export function useChecked(place: WeekPlace, sheet: Sheet) {
  const [answer, setAnswer] = useState<Schemas["Written"] | null>(null);
  const [of, setOf] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const { id, date, title, text } = sheet;
  // One question at a time: a server that is busy is not asked for what nobody waits for any more.
  const asking = useRef(false);
  const next = useRef<(() => void) | null>(null);
  useEffect(() => {
    let current = true;
    const ask = () => {
      if (asking.current) {
        next.current = ask;
        return;
      }
      asking.current = true;
      writing
        .check(place, { date, title, text, session: id })
        .then((found) => {
          if (current) {
            setAnswer(found as Schemas["Written"]);
            setOf(text);
            setError(null);
          }
        })
        .catch((problem: unknown) => {
          if (current) setError(messageOf(problem));
        })
        .finally(() => {
          asking.current = false;
          const waiting = next.current;
          next.current = null;
          waiting?.();
        });
    };
    const timer = setTimeout(ask, CHECK_AFTER_MS);
    return () => {
      current = false;
      clearTimeout(timer);
      if (next.current === ask) next.current = null;
    };
  }, [place, id, date, title, text]);
  /** Whether the answer is of the text as it stands. */
  const isFresh = of === text;
  return { answer, isFresh, error };
}
