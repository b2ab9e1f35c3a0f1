import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { Refusal, type Schemas } from "@/api/client";
import { newId } from "@/api/id";
import { logs } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { type CoreSession, type LogSession, keyOf } from "./log";

/** What a log was before the last change; null where there was none. */
interface Before {
  place: WeekPlace;
  key: string;
  title: string;
  session: CoreSession | null;
  /** The id of a log that was taken out. */
  out: string | null;
}

export type How = (one: LogSession) => CoreSession | null | Promise<CoreSession | null>;

/** So many changes can be undone, one after the other. */
const MOST_STEPS = 100;

const same = (a: WeekPlace, b: WeekPlace) => a.athlete === b.athlete && a.week === b.week;

/**
 * Changes of the week's logs, one after the other: a coach types faster than a server answers, and
 * each change, an undo too, begins with what the one before it left.
 */
export function useEdits(place: WeekPlace) {
  const queries = useQueryClient();
  const done = useRef<Before[]>([]);
  const unanswered = useRef(new Map<string, string[]>());
  const [steps, setSteps] = useState<Before[]>([]);
  // What fails is told by `error`; what waits behind it goes on.
  const change = useMutation({
    scope: { id: "log" },
    mutationFn: (work: () => Promise<void>) => work(),
    onSuccess: () => queries.invalidateQueries(),
  });
  const { mutate: inTurn } = change;

  const put = useCallback((all: Before[]) => {
    done.current = all.slice(-MOST_STEPS);
    setSteps(done.current);
  }, []);
  const remember = useCallback((one: Before) => put([...done.current, one]), [put]);

  const current = useCallback(
    (key: string) =>
      queries
        .getQueryData<Schemas["LogWeek"]>(["log", place])
        ?.sessions.find((one) => keyOf(one) === key),
    [place, queries],
  );

  const keep = useCallback(
    async (one: LogSession, session: CoreSession) => {
      const [key, change] = [keyOf(one), newId()];
      // A change whose answer was lost may have arrived: what comes next goes on from it.
      const after = unanswered.current.get(key) ?? [];
      unanswered.current.set(key, [...after, change]);
      try {
        await logs.keep(place.athlete, one.log?.client_id ?? newId(), {
          change,
          revision: one.log?.revision ?? 0,
          after,
          plan: one.plan?.id ?? null,
          session,
        });
      } catch (problem) {
        const lost = !(problem instanceof Refusal) || problem.status === 0;
        if (!lost) unanswered.current.set(key, after);
        throw problem;
      }
      unanswered.current.delete(key);
    },
    [place],
  );

  const edit = useCallback(
    (key: string, how: How) =>
      inTurn(async () => {
        const one = current(key);
        const session = one && (await how(one));
        if (!session) return;
        await keep(one, session);
        remember({
          place,
          key,
          title: session.title,
          session: one.log?.session ?? null,
          out: null,
        });
      }),
    [current, inTurn, keep, place, remember],
  );

  const takeOut = useCallback(
    (key: string) =>
      inTurn(async () => {
        const log = current(key)?.log;
        if (!log) return;
        await logs.remove(place.athlete, log.client_id);
        remember({
          place,
          key,
          title: log.session.title,
          session: log.session,
          out: log.client_id,
        });
      }),
    [current, inTurn, place, remember],
  );

  const undo = useCallback(
    () =>
      inTurn(async () => {
        // Of another week there is nothing to undo here.
        const was = done.current.findLast((step) => same(step.place, place));
        if (!was) return;
        const one = current(was.key);
        if (was.out) await logs.restore(place.athlete, was.out);
        else if (one && was.session) await keep(one, was.session);
        else if (one?.log) await logs.remove(place.athlete, one.log.client_id);
        put(done.current.filter((step) => step !== was));
      }),
    [current, inTurn, keep, place, put],
  );

  // In another week there is nothing of it to undo.
  return {
    edit,
    takeOut,
    undo,
    before: steps.findLast((step) => same(step.place, place)) ?? null,
    busy: change.isPending,
    error: change.error,
  };
}
