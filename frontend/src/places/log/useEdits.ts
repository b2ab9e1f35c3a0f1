import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { type WeekPlace, logs, useChange } from "@/api/queries";
import { type CoreSession, type LogSession, keyOf } from "./log";

/** What a log was before the last change; null where there was none. */
interface Before {
  key: string;
  title: string;
  session: CoreSession | null;
  /** The id of a log that was taken out. */
  out: string | null;
}

type How = (one: LogSession) => CoreSession | null | Promise<CoreSession | null>;

/**
 * Changes of the week's logs, one after the other: a coach types faster than a server answers, and
 * each change begins with what the one before it left.
 */
export function useEdits(place: WeekPlace) {
  const queries = useQueryClient();
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const [before, setBefore] = useState<Before | null>(null);
  const change = useChange((work: () => Promise<void>) => work());
  const { mutateAsync } = change;

  const inTurn = useCallback((key: string, work: (one: LogSession) => Promise<void>) => {
    const next = last.current.then(() => mutateAsync(async () => {
      const week = queries.getQueryData<Schemas["LogWeek"]>(["log", place]);
      const one = week?.sessions.find((other) => keyOf(other) === key);
      if (one) await work(one);
    }));
    // A change that failed is told by `error`; those behind it have their turn all the same.
    last.current = next.catch(() => undefined);
  }, [mutateAsync, place, queries]);

  const keep = useCallback(async (one: LogSession, session: CoreSession) => {
    await logs.keep(place.athlete, one.log?.client_id ?? crypto.randomUUID(), {
      change: crypto.randomUUID(), revision: one.log?.revision ?? 0, after: [], plan: one.plan?.id ?? null, session,
    });
  }, [place]);

  const edit = useCallback((key: string, how: How) => inTurn(key, async (one) => {
    const session = await how(one);
    if (!session) return;
    await keep(one, session);
    setBefore({ key, title: session.title, session: one.log?.session ?? null, out: null });
  }), [inTurn, keep]);

  const takeOut = useCallback((key: string) => inTurn(key, async (one) => {
    if (!one.log) return;
    await logs.remove(place.athlete, one.log.client_id);
    setBefore({ key, title: one.log.session.title, session: one.log.session, out: one.log.client_id });
  }), [inTurn, place]);

  const undo = useCallback(() => {
    if (!before) return;
    const { key, session, out } = before;
    setBefore(null);
    const back = async (one: LogSession) => {
      if (session) await keep(one, session);
      else if (one.log) await logs.remove(place.athlete, one.log.client_id);
    };
    if (out) last.current = last.current.then(() => mutateAsync(async () => { await logs.restore(place.athlete, out); })).catch(() => undefined);
    else inTurn(key, back);
  }, [before, inTurn, keep, mutateAsync, place]);

  return { edit, takeOut, undo, before, busy: change.isPending, error: change.error };
}
