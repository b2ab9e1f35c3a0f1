import { useState } from "react";
import { type Entry, useTakingBack } from "@/api/journal";
import { useMay } from "@/api/me";
import { moment } from "@/words";
import { changesOf } from "./changesOf";

const TIME = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** When it was: `Fri 27 Nov, 14:05`, or from then until later. */
function when(entry: Entry): string {
  const at = moment(entry.at);
  const until = TIME.format(new Date(entry.until));
  return at.endsWith(until) ? at : `${at}–${until}`;
}

const verb = (entry: Entry) => (entry.undone ? "Redo" : "Undo");

interface Props {
  entries: Entry[];
  /** All of them are of one athlete: no name at each. */
  ofOne?: boolean;
}

/** Entries of the journal, each with the way back where there is one. */
export function Entries({ entries, ofOne = false }: Props) {
  const { swap, busy, error, stays } = useTakingBack();
  return (
    <>
      {error && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3">
          {error.message}
        </p>
      )}
      {stays.length > 0 && (
        <div role="alert" className="mb-2 border-l-4 border-caution pl-3 text-sm">
          <p>The rest went through. This could not be changed:</p>
          <ul>
            {stays.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      )}
      <ul className="text-sm">
        {changesOf(entries).map(([first, ...others]) =>
          first && others.length > 0 ? (
            <Together key={first.id} all={[first, ...others]} swap={swap} busy={busy} />
          ) : (
            first && <Line key={first.id} one={first} named={!ofOne} swap={swap} busy={busy} />
          ),
        )}
      </ul>
    </>
  );
}

interface WayBack {
  swap: (entry: Entry, whole: boolean) => void;
  busy: boolean;
}

/** One change of several athletes: a line, and theirs when it is opened. */
function Together({ all, swap, busy }: { all: Entry[] } & WayBack) {
  const [open, setOpen] = useState(false);
  const [first] = all;
  if (!first) return null;
  const names = new Set(all.map((one) => one.name));
  return (
    <>
      <Line one={first} swap={swap} busy={busy} whole={all.length}>
        <button
          type="button"
          className="trail-link mr-2 font-semibold"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {names.size > 1 ? `${names.size} athletes` : `${first.name}, ${all.length} parts`}
        </button>
      </Line>
      {open &&
        all.map((one) => <Line key={one.id} one={one} named inside swap={swap} busy={busy} />)}
    </>
  );
}

interface LineProps extends WayBack {
  one: Entry;
  named?: boolean;
  inside?: boolean;
  /** How many entries the line stands for. */
  whole?: number;
  children?: React.ReactNode;
}

function Line({ one, named, inside, whole = 1, children, swap, busy }: LineProps) {
  const may = useMay("plan");
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 border-b border-hair py-1.5">
      <span className="w-44 shrink-0 text-ink-2">{!inside && when(one)}</span>
      <span className={`min-w-0 flex-1 basis-64 ${inside ? "pl-4" : ""}`}>
        {children}
        {named && one.name && <span className="font-semibold">{one.name}: </span>}
        <span className={one.undone ? "text-ink-2 line-through" : ""}>{one.says}</span>
        {one.times > 1 && <span className="text-ink-2">, {one.times} times</span>}
      </span>
      <span className="w-56 truncate text-ink-2">
        {!inside && [one.who, one.place].filter(Boolean).join(", ")}
      </span>
      <span className="flex w-36 justify-end gap-3">
        {may && one.can_undo && one.together > 1 && !inside && (
          <button
            type="button"
            className="trail-link min-h-6"
            disabled={busy}
            onClick={() => swap(one, true)}
          >
            {`${verb(one)} all ${one.together}`}
          </button>
        )}
        {may && one.can_undo && whole === 1 && (
          <button
            type="button"
            className="trail-link min-h-6"
            disabled={busy}
            onClick={() => swap(one, false)}
          >
            {verb(one)}
          </button>
        )}
      </span>
    </li>
  );
}
