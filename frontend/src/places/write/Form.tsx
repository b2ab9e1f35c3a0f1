import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { EntryFields, Field } from "./EntryFields";
import { EMPTY, NEW, type Placed, type Row, dragged, groups, moved } from "./rows";
import { useForm } from "./useForm";

interface Props {
  athlete: number;
  text: string;
  names: Schemas["MovementName"][];
  mistakes: Schemas["MistakeOut"][];
  put: (text: string) => void;
  line: (line: number) => void;
}

const PARTS = ["warm-up", "main", "finisher", "cool-down"] as const;
const FORMS = { rounds: "rounds", ladder: "ladder", bouts: "bouts" } as const;

/** The session in fields: the same lines as the text, one row each. */
export function Form({ athlete, text, names, mistakes, put, line }: Props) {
  const { rows, error, past, arrange, change, add, undo } = useForm(athlete, text, put);
  const [held, setHeld] = useState<number | null>(null);
  const [fresh, setFresh] = useState<number | null>(null);
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (fresh === null) return;
    host.current?.querySelector<HTMLElement>(`[data-row="${fresh}"] :is(input, select)`)?.focus();
  }, [fresh]);
  // One ear for all rows: the rows themselves are no controls, their fields are.
  useEffect(() => {
    const list = host.current;
    if (!list || !rows) return undefined;
    const index = (target: EventTarget | null) => {
      const id = Number(
        (target as HTMLElement | null)?.closest<HTMLElement>("[data-row]")?.dataset.row,
      );
      return rows.findIndex((one) => one.id === id);
    };
    const keys = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key === "z") {
        event.preventDefault();
        undo();
      } else if (event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
        event.preventDefault();
        arrange(moved(rows, index(event.target), event.key === "ArrowUp" ? -1 : 1));
      }
    };
    const over = (event: DragEvent) => held !== null && event.preventDefault();
    const drop = (event: DragEvent) => {
      const onto = index(event.target);
      const from = rows.findIndex((one) => one.id === held);
      if (from >= 0 && onto >= 0) arrange(dragged(rows, from, onto));
      setHeld(null);
    };
    const focus = (event: FocusEvent) => line(index(event.target) + 1);
    list.addEventListener("keydown", keys);
    list.addEventListener("dragover", over);
    list.addEventListener("drop", drop);
    list.addEventListener("focusin", focus);
    return () => {
      list.removeEventListener("keydown", keys);
      list.removeEventListener("dragover", over);
      list.removeEventListener("drop", drop);
      list.removeEventListener("focusin", focus);
    };
  }, [rows, held, arrange, undo, line]);
  if (!rows) return <p className="p-6 text-ink-2">Laying out the form…</p>;
  const remove = (index: number) => {
    const group = groups(rows).find((one) => one.from === index) ?? { from: index, to: index };
    arrange([...rows.slice(0, group.from), ...rows.slice(group.to + 1)]);
  };
  const append = (kind: "sets" | "rounds" | "part" | "comment") => {
    // Empty lines at the end stay at the end.
    let end = rows.length - 1;
    while (end >= 0 && rows[end]?.row.kind === "other" && !rows[end]?.row.text.trim()) end -= 1;
    setFresh(add(end, kind === "rounds" ? [NEW.rounds(), NEW.turn()] : [NEW[kind]()]));
  };
  return (
    <div
      ref={host}
      role="group"
      aria-label="The session in fields"
      className="min-h-0 flex-1 overflow-auto px-3 pt-2 pb-8"
    >
      <datalist id="movement-names">
        {names.map((one) => (
          <option key={one.name} value={one.name} />
        ))}
      </datalist>
      {error && (
        <p role="alert" className="border-l-4 border-high px-3 py-1 text-sm">
          {error}
        </p>
      )}
      <ol>
        {rows.map((one, index) =>
          one.row.kind === "other" && !one.row.text.trim() ? (
            <li key={one.id} className="h-3" aria-hidden="true" />
          ) : (
            <li
              key={one.id}
              data-row={one.id}
              className={`border-b border-hair py-1 ${one.row.kind === "turn" ? "pl-6" : ""} ${held === one.id ? "bg-band" : ""} ${one.row.kind === "part" ? "mt-2 border-rule" : ""}`}
            >
              <div className="flex items-start gap-1.5">
                <button
                  type="button"
                  draggable
                  onDragStart={() => setHeld(one.id)}
                  onDragEnd={() => setHeld(null)}
                  aria-label={`Move row ${index + 1}: drag it, or Alt with the up and down arrows`}
                  title="Drag, or Alt with ↑ and ↓"
                  className="mt-0.5 h-6 w-6 shrink-0 cursor-grab text-ink-2"
                >
                  ⋮
                </button>
                <div className="min-w-0 flex-1">
                  <Fields
                    one={one}
                    change={(row, field) => change(one.id, row, field)}
                    more={() => setFresh(add(endOf(rows, index), [NEW.turn()]))}
                  />
                  {mistakes
                    .filter((wrong) => wrong.line === index + 1)
                    .map((wrong) => (
                      <p key={wrong.column} className="text-sm text-high">
                        {wrong.message}
                      </p>
                    ))}
                </div>
                <button
                  type="button"
                  aria-label={`Remove row ${index + 1}`}
                  title="Remove"
                  className="h-6 w-6 shrink-0 text-ink-2 hover:text-ink"
                  onClick={() => remove(index)}
                >
                  ×
                </button>
              </div>
            </li>
          ),
        )}
      </ol>
      <p className="mt-3 flex flex-wrap items-center gap-2 text-sm">
        <button type="button" className="key-button" onClick={() => append("sets")}>
          Add a movement
        </button>
        <button type="button" className="key-button" onClick={() => append("rounds")}>
          Add rounds
        </button>
        <button type="button" className="key-button" onClick={() => append("part")}>
          Add a part
        </button>
        <button type="button" className="key-button" onClick={() => append("comment")}>
          Add a remark
        </button>
        <button type="button" className="key-button ml-auto" disabled={past === 0} onClick={undo}>
          Undo
        </button>
      </p>
    </div>
  );
}

/** The last row of the group that a row is in. */
const endOf = (rows: Placed[], index: number) =>
  groups(rows).find((one) => one.from <= index && index <= one.to)?.to ?? index;

function Fields({
  one,
  change,
  more,
}: {
  one: Placed;
  change: (row: Row, field: string) => void;
  more: () => void;
}): ReactNode {
  const { row } = one;
  switch (row.kind) {
    case "sets":
    case "turn":
      return (
        <>
          {row.label && <span className="mr-2 text-sm font-semibold">{row.label}</span>}
          {row.entries.map((entry, at) => (
            <EntryFields
              // Entries have no name but their place.
              key={at}
              entry={entry}
              named={at === 0 || row.kind === "turn"}
              inRounds={row.kind === "turn"}
              lead={at === 0 ? "" : row.kind === "turn" ? "or, next round" : "then"}
              put={(next, field) =>
                change(
                  {
                    ...row,
                    entries: row.entries.map((other, index) => (index === at ? next : other)),
                  },
                  `${at}/${field}`,
                )
              }
              remove={
                row.entries.length > 1
                  ? () =>
                      change(
                        { ...row, entries: row.entries.filter((_, index) => index !== at) },
                        "entries",
                      )
                  : null
              }
              more={
                at === row.entries.length - 1
                  ? () =>
                      change(
                        {
                          ...row,
                          entries: [
                            ...row.entries,
                            row.kind === "turn"
                              ? { ...entry }
                              : { ...EMPTY, dose: entry.dose, load: entry.load },
                          ],
                        },
                        "entries",
                      )
                  : null
              }
            />
          ))}
        </>
      );
    case "part": {
      const part = row.part ?? { kind: "main", label: "", pre_exhaust: false };
      const put = (next: Partial<typeof part>, field: string) =>
        change({ ...row, part: { ...part, ...next } }, field);
      return (
        <span className="flex flex-wrap items-baseline gap-2 text-sm">
          <select
            aria-label="Kind of part"
            value={part.kind}
            onChange={(event) => put({ kind: event.target.value as typeof part.kind }, "kind")}
            className="h-6 border-b border-rule bg-sheet font-semibold"
          >
            {PARTS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </select>
          <Field
            label="name"
            value={part.label}
            put={(label) => put({ label }, "label")}
            width="w-24"
          />
          {part.kind === "main" && (
            <label className="flex items-center gap-1 text-ink-2">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={part.pre_exhaust}
                onChange={(event) => put({ pre_exhaust: event.target.checked }, "pre")}
              />
              small muscles first on purpose
            </label>
          )}
        </span>
      );
    }
    case "rounds": {
      const head = row.rounds ?? {
        form: "rounds",
        count: "",
        rungs: "",
        on: "",
        off: "",
        between: "",
        every: "",
      };
      const put = (next: Partial<typeof head>, field: string) =>
        change({ ...row, rounds: { ...head, ...next } }, field);
      return (
        <span className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm">
          {head.form === "ladder" ? (
            <Field
              label="rungs"
              value={head.rungs}
              put={(rungs) => put({ rungs }, "rungs")}
              width="w-24"
            />
          ) : (
            <Field
              label="how many"
              hidden
              value={head.count}
              put={(count) => put({ count }, "count")}
              width="w-12"
            />
          )}
          <select
            aria-label="Form of the rounds"
            value={head.form}
            onChange={(event) => put({ form: event.target.value as typeof head.form }, "form")}
            className="h-6 border-b border-rule bg-sheet font-semibold"
          >
            {Object.entries(FORMS).map(([form, name]) => (
              <option key={form} value={form}>
                {name}
              </option>
            ))}
          </select>
          {(head.form === "rounds" || head.every) && (
            <Field
              label="every"
              value={head.every}
              put={(every) => put({ every }, "every")}
              width="w-16"
            />
          )}
          <Field label="on" value={head.on} put={(on) => put({ on }, "on")} width="w-16" />
          <Field label="off" value={head.off} put={(off) => put({ off }, "off")} width="w-16" />
          <Field
            label="between rounds"
            value={head.between}
            put={(between) => put({ between }, "between")}
            width="w-16"
          />
          <button type="button" className="trail-link ml-auto text-ink-2" onClick={more}>
            add to the rounds
          </button>
        </span>
      );
    }
    case "rest":
      return (
        <span className="flex items-baseline gap-2 text-sm">
          <Field
            label="rest before what follows"
            value={row.rest}
            put={(rest) => change({ ...row, rest }, "rest")}
            width="w-20"
          />
        </span>
      );
    case "other":
      return (
        <input
          aria-label="Line as typed"
          value={row.text}
          onChange={(event) => change({ ...row, text: event.target.value }, "text")}
          className="w-full bg-transparent py-0.5 font-mono text-sm text-ink-2"
        />
      );
  }
}
