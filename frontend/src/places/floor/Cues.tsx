import { useState } from "react";
import type { CoreSet, Schemas } from "@/api/client";
import type { Phase } from "./clock";
import { areUnasked, cuesOf, firstOf } from "./cues";
import type { Run } from "./run";

interface Props {
  /** The set that the words are of, as it is to be done. */
  set: CoreSet | undefined;
  runs: Run[];
  movements: Schemas["FloorMovement"][];
  phase: Phase;
}

/**
 * What is said while a set runs: one line at a time, to be read from two metres, a tap brings the
 * next. It stands there unasked for whoever is new to the movement, else behind a key.
 */
export function Cues({ set, runs, movements, phase }: Props) {
  const [open, setOpen] = useState<boolean | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const said = cuesOf(set, runs, movements);
  if (said.length === 0) return null;
  if (!(open ?? areUnasked(set, runs)))
    return (
      <button
        type="button"
        className="trail-link mt-1 min-h-11 self-start text-lg"
        onClick={() => setOpen(true)}
      >
        Cues
      </button>
    );
  const shown = (at ?? firstOf(said, phase)) % said.length;
  const { title, says } = said[shown] ?? { title: "", says: "" };
  return (
    <div className="mt-2 flex items-stretch gap-3">
      <button
        type="button"
        className="min-h-14 min-w-0 flex-1 border-l-4 border-ink py-1 pl-3 text-left text-3xl leading-tight hover:bg-band max-md:text-2xl"
        onClick={() => setAt(shown + 1)}
      >
        <span className="mr-3 text-lg text-ink-2 italic">
          {title}
          <span className="sr-only">: </span>
        </span>
        {says}
      </button>
      <span className="flex flex-col items-end justify-between text-ink-2 tabular-nums">
        {shown + 1} of {said.length}
        <button
          type="button"
          className="trail-link min-h-8"
          aria-label="Fold the cues"
          onClick={() => setOpen(false)}
        >
          fold
        </button>
      </span>
    </div>
  );
}
