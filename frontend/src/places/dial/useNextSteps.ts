import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import type { Sessions } from "./draft";

const ASK_AFTER_MS = 150;

/** The next steps of the draft in hand, asked for anew whenever it changes. */
export function useNextSteps(place: WeekPlace, sessions: Sessions, open: boolean) {
  const [steps, setSteps] = useState<Schemas["NextStepOut"][] | null>(null);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    if (!open) return undefined;
    const control = new AbortController();
    const timer = setTimeout(() => {
      dial
        .next(place, sessions, control.signal)
        .then((found) => {
          setSteps(found.steps);
          setError(null);
        })
        .catch((problem: unknown) => {
          if (!control.signal.aborted) setError(messageOf(problem));
        });
    }, ASK_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [place, sessions, open]);
  return { steps, error };
}
