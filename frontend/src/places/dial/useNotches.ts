import { useEffect, useState } from "react";
import type { Schemas } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import type { Sessions } from "./useDialDraft";

const NOTCHES_AFTER_MS = 200;

/** Where findings come and go as the dial is turned, for the draft as it was last edited by hand. */
export function useNotches(place: WeekPlace, shape: Sessions, start: number) {
  const [notches, setNotches] = useState<Schemas["NotchesOut"]>({ start, notches: [] });
  useEffect(() => {
    const control = new AbortController();
    const timer = setTimeout(() => {
      dial
        .notches(place, shape, control.signal)
        .then(setNotches)
        // The dial turns without its notches; the figures tell of a lost server.
        .catch(() => undefined);
    }, NOTCHES_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [place, shape]);
  return notches;
}
