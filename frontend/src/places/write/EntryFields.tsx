import { useState } from "react";
import { Tick } from "@/frame/Tick";
import type { Choices, Entry } from "./rows";

interface Props {
  entry: Entry;
  /** Whether the movement can be named here. */
  named: boolean;
  inRounds: boolean;
  lead: string;
  choices: Choices;
  put: (entry: Entry, field: string) => void;
  remove: (() => void) | null;
  more: (() => void) | null;
}

/** One dose of a movement in fields; the rarer ones are behind a button until they are used. */
export function EntryFields({ entry, named, inRounds, lead, choices, put, remove, more }: Props) {
  const rare = Boolean(
    entry.hold ||
    entry.range ||
    entry.band ||
    entry.note ||
    entry.why ||
    entry.to_failure ||
    entry.for_time ||
    entry.warm_up,
  );
  const [open, setOpen] = useState(false);
  const set =
    <K extends keyof Entry>(field: K) =>
    (value: Entry[K]) =>
      put({ ...entry, [field]: value }, field);
  return (
    <span className="flex flex-wrap items-baseline gap-x-2 gap-y-1 text-sm">
      {lead && <span className="text-ink-2 italic">{lead}</span>}
      {named && (
        <input
          aria-label="Movement"
          list="movement-names"
          value={entry.moves}
          placeholder="movement"
          onChange={(event) => set("moves")(event.target.value)}
          className="h-6 w-48 border-b border-rule bg-transparent font-semibold"
        />
      )}
      <span className="flex items-baseline gap-1">
        {!inRounds && (
          <>
            <Field label="sets" hidden value={entry.sets} put={set("sets")} width="w-9" />
            <span className="text-ink-2">×</span>
          </>
        )}
        <Field label="reps or time" hidden value={entry.dose} put={set("dose")} width="w-20" />
      </span>
      <Choice
        label="sides"
        none="sides as usual"
        options={choices.sides}
        value={entry.sides}
        put={set("sides")}
      />
      <Field label="at" name="load" value={entry.load} put={set("load")} width="w-20" />
      <Field label="tempo" value={entry.tempo} put={set("tempo")} width="w-16" />
      <Field label="RPE" value={entry.rpe} put={set("rpe")} width="w-8" />
      <Field label="rest" value={entry.rest} put={set("rest")} width="w-14" />
      {(open || rare) && (
        <>
          <Field label="hold" value={entry.hold} put={set("hold")} width="w-12" />
          <Choice
            label="range"
            none="whole range"
            options={choices.ranges}
            value={entry.range}
            put={set("range")}
          />
          <Field label="band" value={entry.band} put={set("band")} width="w-18" />
          <Tick label="warm-up" value={entry.warm_up} put={set("warm_up")} />
          <Tick label="to failure" value={entry.to_failure} put={set("to_failure")} />
          <Tick label="for time" value={entry.for_time} put={set("for_time")} />
          <Field label="note" value={entry.note} put={set("note")} width="w-44" />
          <Field label="because" value={entry.why} put={set("why")} width="w-44" />
        </>
      )}
      <span className="flex gap-2.5 text-ink-2">
        {!rare && (
          <button
            type="button"
            className="trail-link"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {open ? "less" : "more"}
          </button>
        )}
        {more && (
          <button type="button" className="trail-link" onClick={more}>
            {inRounds ? "or" : "then"}
          </button>
        )}
        {remove && (
          <button type="button" className="trail-link" onClick={remove}>
            drop
          </button>
        )}
      </span>
    </span>
  );
}

/** A text field with its word before it. */
export function Field({
  label,
  name = label,
  value,
  put,
  width,
  hidden = false,
}: {
  label: string;
  name?: string;
  value: string;
  put: (value: string) => void;
  width: string;
  hidden?: boolean;
}) {
  return (
    <label className="flex items-baseline gap-1">
      <span className={hidden ? "sr-only" : "text-ink-2"}>{label}</span>
      <input
        value={value}
        onChange={(event) => put(event.target.value)}
        aria-label={name}
        className={`h-6 border-b border-rule bg-transparent px-1 ${width}`}
      />
    </label>
  );
}

function Choice({
  label,
  none,
  options,
  value,
  put,
}: {
  label: string;
  none: string;
  options: string[];
  value: string;
  put: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => put(event.target.value)}
      className={`h-6 w-24 border-b border-rule bg-sheet ${value ? "" : "text-ink-2"}`}
    >
      <option value="">{none}</option>
      {options.map((one) => (
        <option key={one} value={one}>
          {one}
        </option>
      ))}
    </select>
  );
}
