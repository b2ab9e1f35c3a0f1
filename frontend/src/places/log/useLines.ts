import type { CoreSet } from "@/api/client";
import { useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { logs } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { asPlanned } from "@/shared/coreRules";
import { useMeant } from "@/shared/useMeant";
import {
  type Line,
  type LogSession,
  doneOf,
  planOf,
  rebuilt,
  restAsPlanned,
  roundOf,
  sameLine,
  setsOf,
} from "./log";

/** Change the sets; `how` is given the session as it is when its turn comes. */
export type EditSets = (
  how: (one: LogSession) => CoreSet[] | null | Promise<CoreSet[] | null>,
) => void;

/** What can be done to the lines of a log, each as a change of the log's sets. */
export function useLines(
  place: WeekPlace,
  one: LogSession,
  names: Schemas["MovementName"][],
  edit: EditSets,
) {
  const [error, setError] = useState<{ at: number; says: string } | null>(null);
  const plans = one.plan?.sets ?? [];
  const change = (where: (now: LogSession, line: Line, at: number) => CoreSet[] | null) => {
    setError(null);
    edit((now) => rebuilt(now.lines, setsOf(now), (line, at) => where(now, line, at)));
  };
  const put = (which: Line, next: (now: LogSession, line: Line) => CoreSet[]) => {
    const same = sameLine(which);
    change((now, line) => (same(line) ? next(now, line) : null));
  };
  /** A set as planned, whatever was said of it. */
  const planned = (which: Line) =>
    put(which, (now, line) => [planOf(now, line) ?? []].flat().map(asPlanned));
  /** Of several sets, those that nothing was said of. */
  const restPlanned = (which: (line: Line) => boolean) => {
    setError(null);
    edit((now) => restAsPlanned(now, which));
  };
  /** Whether the words were understood. */
  const amend = (index: number, which: Line, text: string): Promise<boolean> =>
    new Promise((resolve) => {
      setError(null);
      edit(async (now) => {
        const line = now.lines.find(sameLine(which));
        const base = line && (doneOf(now, line) ?? planOf(now, line));
        try {
          if (!base) throw new Error("This set is gone: it was changed in the meantime.");
          const found = await logs.amend(place, { set: asPlanned(base), text });
          resolve(true);
          return rebuilt(now.lines, setsOf(now), (other) =>
            other === line ? Array.from({ length: found.count }, () => found.set) : null,
          );
        } catch (problem) {
          setError({
            at: index,
            says: messageOf(problem),
          });
          resolve(false);
          return null;
        }
      });
    });
  /** One more round behind those of a part: what its last planned round has. */
  const oneMore = (part: string) => {
    const ofPart = plans.filter((set) => (set.part ?? "") === part);
    const last = Math.max(...ofPart.map(roundOf));
    const more = ofPart.filter((set) => roundOf(set) === last).map(asPlanned);
    change((now, line, at) => {
      const end = now.lines.findLastIndex((other) => other.part === part);
      return at === end ? [doneOf(now, line), ...more].filter((set) => set !== undefined) : null;
    });
  };
  /** Whether the movement is known. */
  const swap = (index: number, which: Line, name: string) => {
    const known = names.find((other) => other.name.toLowerCase() === name.trim().toLowerCase());
    if (!known) {
      setError({ at: index, says: `No movement is called “${name}”.` });
      return false;
    }
    // All sets of the movement from here on that are not done otherwise.
    change((now, other, at) => {
      const set = doneOf(now, other) ?? planOf(now, other);
      const from = now.lines.findIndex(sameLine(which));
      return at >= from && other.movement === which.movement && set
        ? [{ ...asPlanned(set), exercise: known.name, moves: null }]
        : null;
    });
    return true;
  };
  const { meant, add } = useMeant(place.athlete);
  const words = (line: Line) => `${line.movement}: ${line.done}`;
  return {
    error,
    /** Whether a doubtful set is meant as it stands, and to say so. */
    meant: (line: Line) => meant.includes(words(line)),
    mean: (line: Line) => add(words(line)),
    put,
    planned,
    restPlanned,
    amend,
    oneMore,
    swap,
  };
}

export type Lines = ReturnType<typeof useLines>;
