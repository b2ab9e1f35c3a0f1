import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, messageOf } from "@/api/client";
import { inOrder } from "@/api/inOrder";
import { type WeekPlace } from "@/api/place";
import { noteSave, saveUnderWay, writing } from "@/api/write";
import { forgetOnDevice, keepOnDevice, rememberNumber } from "./device";
import { type Sheet, copyOf, deskOf, same } from "./sheet";

export type Saving = "saved" | "saving…" | "not saved" | "changed in another window";

const SAVE_AFTER_MS = 900;

/** To be told when a plan was changed: whatever else is shown of it is asked for anew. */
export function usePlanChanged(): () => Promise<void> {
  const queries = useQueryClient();
  return useCallback(
    () => queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "written" }),
    [queries],
  );
}

interface Begun {
  sheet: Sheet;
  client: string;
}

/** A session in hand, on the device with each key, and what is stored of it. */
function useInHand(place: WeekPlace, opened: Sheet, begun: Begun) {
  const [sheet, setSheet] = useState(begun.sheet);
  const [kept, setKept] = useState(opened);
  const latestRef = useRef(begun.sheet);
  const deskRef = useRef(deskOf(opened));
  const goneRef = useRef(false);
  // Neither changes while a desk is there; the place's object does with every address.
  const clientRef = useRef(begun.client);
  const whereRef = useRef(place);

  const take = useCallback((next: Sheet) => {
    latestRef.current = next;
    setSheet(next);
  }, []);

  /** What is typed: on the device at once, whatever happens next. */
  const put = useCallback(
    (change: Partial<Sheet>) => {
      const next = { ...latestRef.current, ...change };
      keepOnDevice(whereRef.current, deskRef.current, copyOf(next, clientRef.current));
      take(next);
    },
    [take],
  );
  const forget = useCallback(() => forgetOnDevice(whereRef.current, deskRef.current), []);

  /** Go on from what is stored now: what is on the device is over this revision. */
  const goOnFrom = useCallback(
    (done: Sheet) => {
      setKept(done);
      take({ ...latestRef.current, id: done.id, revision: done.revision });
      forget();
      // The desk has a number now.
      if (goneRef.current && done.id !== null)
        rememberNumber(whereRef.current, deskRef.current, done.id);
      deskRef.current = deskOf(done);
      if (!same(latestRef.current, done)) put({});
    },
    [take, forget, put],
  );
  return {
    sheet,
    kept,
    latestRef,
    deskRef,
    goneRef,
    clientRef,
    whereRef,
    take,
    put,
    forget,
    goOnFrom,
  };
}

/** A session is stored soon after it was typed, one save after the other. */
export function useSaving(
  place: WeekPlace,
  opened: Sheet,
  begun: Begun,
  stored: (sheet: Sheet) => void,
) {
  const { latestRef, deskRef, goneRef, clientRef, whereRef, ...hand } = useInHand(
    place,
    opened,
    begun,
  );
  const { sheet, kept, take, put, forget, goOnFrom } = hand;
  const [saving, setSaving] = useState<Saving>("saved");
  const [unsaved, setUnsaved] = useState<string | null>(null);
  const busy = useRef(false);
  const refresh = usePlanChanged();

  const [sendInOrder] = useState(() => inOrder(send, goOnFrom));
  const store = useCallback(async (): Promise<Sheet | null> => {
    try {
      let done: Sheet;
      do {
        done = await sendInOrder(() => ({
          place: whereRef.current,
          sheet: latestRef.current,
          client: clientRef.current,
        }));
        stored(done);
      } while (goneRef.current && !same(latestRef.current, done));
      setSaving("saved");
      setUnsaved(null);
      void refresh();
      return done;
    } catch (problem) {
      const stale = problem instanceof Refusal && problem.status === 409;
      setSaving(stale ? "changed in another window" : "not saved");
      setUnsaved(messageOf(problem));
      return null;
    } finally {
      busy.current = false;
    }
  }, [stored, refresh, sendInOrder, latestRef, goneRef, whereRef, clientRef]);
  const save = useCallback(() => {
    // One at a time; what is typed meanwhile has its own moment, or is saved on leaving.
    if (busy.current) return;
    busy.current = true;
    setSaving("saving…");
    noteSave(whereRef.current, deskRef.current, store());
  }, [store, whereRef, deskRef]);

  const changed = !same(sheet, kept);
  useEffect(() => {
    if (!changed || saving === "changed in another window") return undefined;
    const timer = setTimeout(save, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [changed, saving, sheet, save]);

  // Whoever leaves within the moment before a save does not lose what was typed.
  const leave = useRef<(() => void) | null>(null);
  useEffect(() => {
    leave.current = changed && saving !== "changed in another window" ? save : null;
  }, [changed, saving, save]);
  useEffect(() => {
    goneRef.current = false;
    // Left and opened again before the answer was there: the next save waits for it.
    const before = latestRef.current.id !== null && saveUnderWay(whereRef.current, deskRef.current);
    if (before) {
      busy.current = true;
      void before.then((done) => {
        busy.current = false;
        if (done) goOnFrom(done);
        // What was typed meanwhile has its moment anew.
        else take({ ...latestRef.current });
        if (goneRef.current) leave.current?.();
      });
    }
    return () => {
      goneRef.current = true;
      leave.current?.();
    };
  }, [goOnFrom, take, goneRef, latestRef, whereRef, deskRef]);

  return {
    sheet,
    saving: changed && saving === "saved" ? ("saving…" as Saving) : saving,
    unsaved,
    put,
    forget,
  };
}

interface Sending {
  place: WeekPlace;
  sheet: Sheet;
  client: string;
}

/** Store what is typed; a new session once: sent again, it is the one that is there. */
async function send({ place, sheet, client }: Sending): Promise<Sheet> {
  const { id, date, title, text, revision } = sheet;
  const body = { date, title, text, session: id };
  if (id === null) return writing.add(place, { ...body, client });
  return { ...sheet, ...(await writing.save(place, id, { ...body, revision })) };
}
