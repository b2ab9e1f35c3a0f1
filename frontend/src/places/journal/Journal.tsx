import { useState } from "react";
import { useJournal } from "@/api/journal";
import { useRoster } from "@/api/roster";
import { Entries } from "@/frame/Entries";
import { Failure } from "@/frame/Failure";
import { useAddress, useTyped } from "@/frame/useAddress";

/** Who changed what, when and where; the address holds what is looked for. */
export function Journal() {
  const { params, put: say } = useAddress();
  const [before, setBefore] = useState<number[]>([]);
  const [athlete, who, words] = ["athlete", "who", "words"].map((one) => params.get(one) ?? "");
  const undoable = params.get("undoable") === "yes";
  const found = useJournal({
    athlete: Number(athlete) || undefined,
    who: who || undefined,
    words: words || undefined,
    undoable: undoable || undefined,
    before: before.at(-1),
  });
  const put = (name: string, value: string) => {
    setBefore([]);
    say({ [name]: value });
  };
  if (found.error) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Loading the journal…</p>;
  const { entries, more, people } = found.data;
  const last = entries.at(-1);
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-3 pb-8 max-md:px-4">
      <Wanted params={params} people={people} put={put} again={() => setBefore([])} />
      {entries.length === 0 && (
        <p className="py-6 text-ink-2">
          No changes match. Every change is listed here: who, when, where and what.
        </p>
      )}
      <Entries entries={entries} ofOne={Boolean(athlete)} />
      <p className="flex gap-5 pt-3 text-sm">
        {before.length > 0 && (
          <button
            type="button"
            className="trail-link"
            onClick={() => setBefore((old) => old.slice(0, -1))}
          >
            Newer
          </button>
        )}
        {more && last && (
          <button
            type="button"
            className="trail-link"
            onClick={() => setBefore((old) => [...old, last.id])}
          >
            Older
          </button>
        )}
      </p>
      <p className="mt-4 max-w-prose text-sm text-ink-2">
        Plans, rules, the kit, files and archived people can be undone for thirty days; later
        changes to the same thing have to be undone first.
      </p>
    </main>
  );
}

interface WantedProps {
  params: URLSearchParams;
  /** Who is in the journal. */
  people: string[];
  put: (name: string, value: string) => void;
  /** Something else is looked for: from the newest on. */
  again: () => void;
}

/** What is looked for. */
function Wanted({ params, people, put, again }: WantedProps) {
  const roster = useRoster();
  const [words, type] = useTyped("words");
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 pb-3">
      <h1 className="text-xl font-semibold">Journal</h1>
      <select
        aria-label="Athlete"
        value={params.get("athlete") ?? ""}
        onChange={(event) => put("athlete", event.target.value)}
        className="field text-sm"
      >
        <option value="">everybody</option>
        {roster.data?.athletes.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      {people.length > 0 && (
        <select
          aria-label="By"
          value={params.get("who") ?? ""}
          onChange={(event) => put("who", event.target.value)}
          className="field text-sm"
        >
          <option value="">anybody</option>
          {people.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      )}
      <input
        type="search"
        aria-label="Containing"
        placeholder="Containing"
        value={words}
        onChange={(event) => {
          type(event.target.value);
          again();
        }}
        className="field w-48 text-sm"
      />
      <label className="flex items-center gap-1.5 text-sm">
        <input
          type="checkbox"
          checked={params.get("undoable") === "yes"}
          onChange={(event) => put("undoable", event.target.checked ? "yes" : "")}
          className="size-4 accent-ink"
        />
        can be undone
      </label>
    </div>
  );
}
