import { useCallback, useEffect, useRef, useState } from "react";
import { messageOf } from "@/api/client";
import { form } from "@/api/write";
import { type Placed, type Row, placed } from "./rows";

/** The lines of a text as rows of fields: a changed row rewrites its own line and no other. */
export function useForm(athlete: number, text: string, put: (text: string) => void) {
  const [rows, setRows] = useState<Placed[] | null>(null);
  const [past, setPast] = useState<{ rows: Placed[]; field: string }[]>([]);
  const [error, setError] = useState<string | null>(null);
  const latest = useRef<Placed[]>([]);
  const shown = useRef<string | null>(null);

  const take = useCallback(
    (next: Placed[]) => {
      latest.current = next;
      setRows(next);
      const whole = next.map((one) => one.row.text).join("\n");
      shown.current = whole;
      put(whole);
    },
    [put],
  );

  // A text that did not come from here (the first one, or one changed elsewhere) is taken apart.
  useEffect(() => {
    if (shown.current === text) return;
    let gone = false;
    form
      .rows(athlete, text)
      .then((found) => {
        if (gone) return;
        shown.current = text;
        latest.current = found.rows.map((row) => placed(row));
        setRows(latest.current);
      })
      .catch((problem: unknown) => setError(messageOf(problem)));
    return () => {
      gone = true;
    };
  }, [athlete, text]);

  const remember = useCallback((field: string) => {
    const before = latest.current;
    setPast((all) =>
      field !== "" && all.at(-1)?.field === field
        ? all
        : [...all.slice(-99), { rows: before, field }],
    );
  }, []);

  /** Put rows in another order, or fewer of them. */
  const arrange = useCallback(
    (next: Placed[]) => {
      if (next === latest.current) return;
      remember("");
      take(next);
    },
    [remember, take],
  );

  const write = useCallback(
    async (id: number, row: Row) => {
      try {
        const line = await form.line(athlete, row);
        // Only if it was not changed again meanwhile.
        if (latest.current.some((one) => one.id === id && one.row === row))
          take(
            latest.current.map((one) =>
              one.id === id ? { id, row: { ...row, text: line.text } } : one,
            ),
          );
        setError(null);
      } catch (problem) {
        setError(messageOf(problem));
      }
    },
    [athlete, take],
  );

  /** Change a row; typing in one field is one step to undo. */
  const change = useCallback(
    (id: number, row: Row, field: string) => {
      remember(`${id}/${field}`);
      latest.current = latest.current.map((one) => (one.id === id ? { id, row } : one));
      setRows(latest.current);
      void write(id, row);
    },
    [remember, write],
  );

  /** Put new rows behind a place; the first of them is given back. */
  const add = useCallback(
    (after: number, fresh: Row[]) => {
      remember("");
      const next = fresh.map((row) => placed(row));
      latest.current = [
        ...latest.current.slice(0, after + 1),
        ...next,
        ...latest.current.slice(after + 1),
      ];
      setRows(latest.current);
      next.forEach(({ id, row }) => void write(id, row));
      return next[0]?.id ?? 0;
    },
    [remember, write],
  );

  const undo = useCallback(() => {
    setPast((all) => {
      const step = all.at(-1);
      if (step) take(step.rows);
      return all.slice(0, -1);
    });
  }, [take]);

  return { rows, error, past: past.length, arrange, change, add, undo };
}
