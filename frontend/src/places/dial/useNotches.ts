import { useEffect, useState } from "react";
import type { Schemas } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import { type Sessions, type Subject, WEEK } from "./draft";

const NOTCHES_AFTER_MS = 200;

export type Dialled = Schemas["NotchesOut"] & { on: Subject };

/** How far the dial goes, and where findings come and go, for the draft as it was last edited. */
export function useNotches(
  place: WeekPlace,
  shape: Sessions,
  on: Subject,
  opened: Schemas["DraftOut"],
): Dialled {
  const [found, setFound] = useState<Dialled>({
    on: WEEK,
    start: opened.start_total,
    least: opened.least,
    most: opened.most,
    step: 1,
    unit: "sets",
    whole: null,
    notches: [],
    subjects: [],
  });
  useEffect(() => {
    const control = new AbortController();
    const timer = setTimeout(() => {
      dial
        .notches(place, shape, on, control.signal)
        .then((answer) => setFound({ ...answer, on }))
        // The dial turns without its notches; the figures tell of a lost server.
        .catch(() => undefined);
    }, NOTCHES_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [place, shape, on]);
  return found;
}
