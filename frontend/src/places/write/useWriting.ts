import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, messageOf } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { writing } from "@/api/write";
import { newId } from "@/api/id";
import { useChecked } from "./useChecked";
import {
  type Copy,
  dropLeft,
  forgetOnDevice,
  keepOnDevice,
  leftBehind,
  rememberNumber,
  typedHere,
} from "./device";

export interface Sheet {
  /** The session that is written; null until it is stored for the first time. */
  id: number | null;
  date: string;
  title: string;
  text: string;
  revision: number;
}

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

const same = (
  one: Pick<Sheet, "date" | "title" | "text">,
  other: Pick<Sheet, "date" | "title" | "text">,
) => one.text === other.text && one.title === other.title && one.date === other.date;

/** The name of a desk on the device: the session's number, or the day of a new one. */
const deskOf = (sheet: Sheet) => (sheet.id === null ? `new-${sheet.date}` : String(sheet.id));

const copyOf = (sheet: Sheet, client: string): Copy => ({
  date: sheet.date,
  title: sheet.title,
  text: sheet.text,
  revision: sheet.revision,
  client,
  at: Date.now(),
});

/** Typed on this device and not stored, while the session was changed elsewhere. */
export interface Aside {
  copy: Copy;
  /** Where another window left it; null if it is this window's own. */
  key: string | null;
}

/** A session in hand: on the device before the next key, checked as it is typed, stored soon after. */
export function useWriting(place: WeekPlace, opened: Sheet, stored: (sheet: Sheet) => void) {
  const [start] = useState(() => begin(place, opened));
  const [sheet, setSheet] = useState(start.sheet);
  const [aside, setAside] = useState<Aside | null>(start.aside);
  const [saving, setSaving] = useState<Saving>("saved");
  const [unsaved, setUnsaved] = useState<string | null>(null);
  const [kept, setKept] = useState(opened);
  const busy = useRef(false);
  const gone = useRef(false);
  const latest = useRef(start.sheet);
  const desk = useRef(deskOf(opened));
  const client = useRef(start.client);
  // The week of a desk never changes; its object does with every address.
  const where = useRef(place);
  const refresh = usePlanChanged();

  const take = useCallback((next: Sheet) => {
    latest.current = next;
    setSheet(next);
  }, []);

  const { answer, error } = useChecked(place, sheet);
  const save = useCallback(async () => {
    // One at a time; what is typed meanwhile has its own moment, or is saved on leaving, below.
    if (busy.current) return;
    busy.current = true;
    setSaving("saving…");
    try {
      let done: Sheet;
      do {
        done = await store(place, latest.current, client.current);
        setKept(done);
        take({ ...latest.current, id: done.id, revision: done.revision });
        // The desk has a number now, and what is on the device is over this revision.
        forgetOnDevice(place, desk.current);
        if (gone.current && done.id !== null) rememberNumber(place, desk.current, done.id);
        desk.current = deskOf(done);
        if (!same(latest.current, done))
          keepOnDevice(place, desk.current, copyOf(latest.current, client.current));
        stored(done);
      } while (gone.current && !same(latest.current, done));
      setSaving("saved");
      setUnsaved(null);
      void refresh();
    } catch (problem) {
      const stale = problem instanceof Refusal && problem.status === 409;
      setSaving(stale ? "changed in another window" : "not saved");
      setUnsaved(messageOf(problem));
    } finally {
      busy.current = false;
    }
  }, [place, stored, refresh, take]);

  const changed = !same(sheet, kept);
  useEffect(() => {
    if (!changed || saving === "changed in another window") return undefined;
    const timer = setTimeout(() => void save(), SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [changed, saving, sheet, save]);

  // Whoever leaves within the moment before a save does not lose what was typed.
  const leave = useRef<(() => void) | null>(null);
  useEffect(() => {
    leave.current = changed && saving !== "changed in another window" ? () => void save() : null;
  }, [changed, saving, save]);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
      leave.current?.();
    };
  }, []);

  /** What is typed: on the device at once, whatever happens next. */
  const put = useCallback(
    (change: Partial<Sheet>) => {
      const next = { ...latest.current, ...change };
      keepOnDevice(where.current, desk.current, copyOf(next, client.current));
      take(next);
    },
    [take],
  );

  /** Use what was typed before, or let go of it. */
  const decide = useCallback(
    (mine: boolean) => {
      if (!aside) return;
      if (mine) put({ text: aside.copy.text, title: aside.copy.title });
      if (aside.key === null && !mine) forgetOnDevice(place, desk.current);
      if (aside.key !== null) dropLeft(aside.key);
      setAside(null);
    },
    [aside, place, put],
  );

  return {
    sheet,
    answer,
    error: unsaved ?? error,
    saving: changed && saving === "saved" ? ("saving…" as Saving) : saving,
    put,
    aside,
    decide,
  };
}

/** What one begins with: the session as it is stored, or as this window typed it last. */
function begin(
  place: WeekPlace,
  opened: Sheet,
): { sheet: Sheet; aside: Aside | null; client: string } {
  const name = deskOf(opened);
  const own = typedHere(place, name);
  if (own && !same(own, opened)) {
    const goesOn = own.revision === opened.revision;
    if (goesOn)
      return {
        sheet: { ...opened, date: own.date, title: own.title, text: own.text },
        aside: null,
        client: own.client,
      };
    return { sheet: opened, aside: { copy: own, key: null }, client: own.client };
  }
  const left = leftBehind(place, name);
  const aside = left && !same(left.copy, opened) ? left : null;
  return { sheet: opened, aside, client: own?.client ?? newId() };
}

/** Store what is typed; a new session once: sent again, it is the one that is there. */
async function store(place: WeekPlace, sheet: Sheet, client: string): Promise<Sheet> {
  const { id, date, title, text, revision } = sheet;
  const body = { date, title, text, session: id };
  if (id === null) return writing.add(place, { ...body, client });
  return { ...sheet, ...(await writing.save(place, id, { ...body, revision })) };
}
