import type { ReactNode } from "react";
import { EntryFields, Field } from "./EntryFields";
import { RoundsFields } from "./RoundsFields";
import { type Choices, EMPTY, type Row } from "./rows";

interface Props {
  row: Row;
  choices: Choices;
  /** `field` names what was typed in: it is one step to undo. */
  change: (row: Row, field: string) => void;
}

/** The fields of a row, by its kind. */
export function RowFields({ row, choices, change, more }: Props & { more: () => void }): ReactNode {
  switch (row.kind) {
    case "sets":
    case "turn":
      return <SetsFields row={row} choices={choices} change={change} />;
    case "part":
      return <PartFields row={row} choices={choices} change={change} />;
    case "rounds":
      return <RoundsFields row={row} choices={choices} change={change} more={more} />;
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

/** Sets of a movement, or its turn in rounds: an entry after the other. */
function SetsFields({ row, choices, change }: Props) {
  const isTurn = row.kind === "turn";
  const last = row.entries.length - 1;
  const put = (entries: Row["entries"], field = "entries") => change({ ...row, entries }, field);
  return (
    <>
      {row.label && <span className="mr-2 text-sm font-semibold">{row.label}</span>}
      {row.entries.map((entry, at) => (
        <EntryFields
          // Entries have no name but their place.
          key={at}
          entry={entry}
          choices={choices}
          named={at === 0 || isTurn}
          inRounds={isTurn}
          lead={at === 0 ? "" : isTurn ? "or, next round" : "then"}
          put={(next, field) =>
            put(
              row.entries.map((known, index) => (index === at ? next : known)),
              `${at}/${field}`,
            )
          }
          remove={last > 0 ? () => put(row.entries.filter((_, index) => index !== at)) : null}
          more={
            at === last
              ? () =>
                  put([
                    ...row.entries,
                    isTurn ? { ...entry } : { ...EMPTY, dose: entry.dose, load: entry.load },
                  ])
              : null
          }
        />
      ))}
    </>
  );
}

/** The kind and the name of a part of the session. */
function PartFields({ row, choices, change }: Props) {
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
        {choices.parts.map((kind) => (
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
