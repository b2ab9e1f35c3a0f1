import { useEffect, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { RowFields } from "./RowFields";
import { type Choices, NEW, type Placed, type Row, groups } from "./rows";
import { useForm } from "./useForm";
import { useRowKeys } from "./useRowKeys";

interface Props {
  athlete: number;
  text: string;
  names: Schemas["MovementName"][];
  mistakes: Schemas["MistakeOut"][];
  choices: Choices;
  put: (text: string) => void;
  line: (line: number) => void;
}

type Kind = "sets" | "rounds" | "part" | "comment";

/** The session in fields: the same lines as the text, one row each. */
export function Form({ athlete, text, names, mistakes, choices, put, line }: Props) {
  const { rows, error, past, arrange, change, add, undo } = useForm(athlete, text, put);
  const [held, setHeld] = useState<number | null>(null);
  const [fresh, setFresh] = useState<number | null>(null);
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (fresh === null) return;
    host.current?.querySelector<HTMLElement>(`[data-row="${fresh}"] :is(input, select)`)?.focus();
  }, [fresh]);
  useRowKeys(host, { rows, held, hold: setHeld, arrange, undo, line });
  if (!rows) return <p className="p-6 text-ink-2">Loading the form…</p>;
  const remove = (index: number) => {
    const group = groups(rows).find((one) => one.from === index) ?? { from: index, to: index };
    arrange([...rows.slice(0, group.from), ...rows.slice(group.to + 1)]);
  };
  const append = (kind: Kind) => {
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
            <Line
              choices={choices}
              key={one.id}
              one={one}
              number={index + 1}
              isHeld={held === one.id}
              hold={setHeld}
              wrong={mistakes.filter((wrong) => wrong.line === index + 1)}
              change={(row, field) => change(one.id, row, field)}
              more={() => setFresh(add(endOf(rows, index), [NEW.turn()]))}
              remove={() => remove(index)}
            />
          ),
        )}
      </ol>
      <AddRows append={append} canUndo={past > 0} undo={undo} />
    </div>
  );
}

interface LineProps {
  choices: Choices;
  one: Placed;
  number: number;
  isHeld: boolean;
  hold: (id: number | null) => void;
  wrong: Schemas["MistakeOut"][];
  change: (row: Row, field: string) => void;
  more: () => void;
  remove: () => void;
}

/** A row of the session: to move, to fill in, to remove. */
function Line({ choices, one, number, isHeld, hold, wrong, change, more, remove }: LineProps) {
  return (
    <li
      data-row={one.id}
      className={`border-b border-hair py-1 ${one.row.kind === "turn" ? "pl-6" : ""} ${isHeld ? "bg-band" : ""} ${one.row.kind === "part" ? "mt-2 border-rule" : ""}`}
    >
      <div className="flex items-start gap-1.5">
        <button
          type="button"
          draggable
          onDragStart={() => hold(one.id)}
          onDragEnd={() => hold(null)}
          aria-label={`Move row ${number}: drag it, or Alt with the up and down arrows`}
          title="Drag, or Alt with ↑ and ↓"
          className="mt-0.5 h-6 w-6 shrink-0 cursor-grab text-ink-2"
        >
          ⋮
        </button>
        <div className="min-w-0 flex-1">
          <RowFields row={one.row} choices={choices} change={change} more={more} />
          {wrong.map((mistake) => (
            <p key={mistake.column} className="text-sm text-high">
              {mistake.message}
            </p>
          ))}
        </div>
        <button
          type="button"
          aria-label={`Remove row ${number}`}
          title="Remove"
          className="h-6 w-6 shrink-0 text-ink-2 hover:text-ink"
          onClick={remove}
        >
          ×
        </button>
      </div>
    </li>
  );
}

interface AddRowsProps {
  append: (kind: Kind) => void;
  canUndo: boolean;
  undo: () => void;
}

/** New rows behind those that are there, and the way back. */
function AddRows({ append, canUndo, undo }: AddRowsProps) {
  return (
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
      <button type="button" className="key-button ml-auto" disabled={!canUndo} onClick={undo}>
        Undo
      </button>
    </p>
  );
}

/** The last row of the group that a row is in. */
const endOf = (rows: Placed[], index: number) =>
  groups(rows).find((one) => one.from <= index && index <= one.to)?.to ?? index;
