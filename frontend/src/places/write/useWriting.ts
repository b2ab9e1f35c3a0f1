import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, type Schemas } from "@/api/client";
import { type WeekPlace, writing } from "@/api/queries";

export interface Sheet {
  /** The session that is written; null until it is stored for the first time. */
  id: number | null;
  date: string;
  title: string;
  text: string;
  revision: number;
}

export type Saving = "stored" | "storing…" | "not stored" | "changed in another window";

const CHECK_AFTER_MS = 50;
const SAVE_AFTER_MS = 900;

/** To be told when a plan was changed: whatever else is shown of it is asked for anew. */
export function usePlanChanged(): () => Promise<void> {
  const queries = useQueryClient();
  return useCallback(
    () => queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "written" }),
    [queries],
  );
}

/** A session in hand: checked as it is typed, stored soon after the last key. */
export function useWriting(place: WeekPlace, opened: Sheet, stored: (sheet: Sheet) => void) {
  const [sheet, setSheet] = useState(opened);
  const [answer, setAnswer] = useState<Schemas["Written"] | null>(null);
  const [saving, setSaving] = useState<Saving>("stored");
  const [error, setError] = useState<string | null>(null);
  const [kept, setKept] = useState(opened);
  const busy = useRef(false);
  const refresh = usePlanChanged();

  const { id, date, title, text } = sheet;
  useEffect(() => {
    const control = new AbortController();
    const timer = setTimeout(() => {
      writing
        .check(place, { date, title, text, session: id }, control.signal)
        .then((found) => { setAnswer(found as Schemas["Written"]); setError(null); })
        .catch((problem: unknown) => {
          if (!control.signal.aborted) setError(problem instanceof Error ? problem.message : String(problem));
        });
    }, CHECK_AFTER_MS);
    return () => { clearTimeout(timer); control.abort(); };
  }, [place, id, date, title, text]);

  const save = useCallback(async (now: Sheet) => {
    if (busy.current) return;
    busy.current = true;
    setSaving("storing…");
    const body = { date: now.date, title: now.title, text: now.text, session: now.id };
    try {
      const next = now.id === null
        ? await writing.add(place, body)
        : { id: now.id, ...(await writing.save(place, now.id, { ...body, revision: kept.revision })) };
      const done = { ...now, id: next.id, revision: next.revision };
      setKept(done);
      setSheet((latest) => ({ ...latest, id: next.id, revision: next.revision }));
      stored(done);
      setSaving("stored");
      await refresh();
    } catch (problem) {
      const stale = problem instanceof Refusal && problem.status === 409;
      setSaving(stale ? "changed in another window" : "not stored");
      setError(problem instanceof Error ? problem.message : String(problem));
    } finally {
      busy.current = false;
    }
  }, [place, stored, kept.revision, refresh]);

  const changed = text !== kept.text || title !== kept.title || date !== kept.date;
  useEffect(() => {
    if (!changed || saving === "changed in another window") return undefined;
    const timer = setTimeout(() => void save(sheet), SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [changed, saving, sheet, save]);

  // Whoever leaves within the moment before a save does not lose what was typed.
  const leave = useRef<(() => void) | null>(null);
  useEffect(() => {
    leave.current = changed && saving !== "changed in another window" ? () => void save(sheet) : null;
  }, [changed, saving, sheet, save]);
  useEffect(() => () => leave.current?.(), []);

  const put = useCallback((change: Partial<Sheet>) => setSheet((now) => ({ ...now, ...change })), []);
  return { sheet, answer, error, saving: changed && saving === "stored" ? ("storing…" as Saving) : saving, put };
}
