import { useState } from "react";
import type { Schemas } from "@/api/client";
import { care, useCare } from "@/api/care";
import { useChange } from "@/api/changes";
import { date } from "@/words";
import { useTyped } from "@/frame/useTyped";

type Kind = Schemas["Caution"]["kind"];

/** What plans have to mind about an athlete: age, pregnancy, illness, a way back; on whose word. */
export function Care({ athlete }: { athlete: number }) {
  const found = useCare(athlete);
  const [adding, setAdding] = useState(false);
  const end = useChange((id: number) => care.end(athlete, id));
  const restore = useChange((id: number) => care.restore(athlete, id));
  const all = found.data?.cautions ?? [];
  const error = found.error ?? end.error ?? restore.error;
  return (
    <section aria-labelledby="care" className="mb-7 max-w-3xl">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule pb-1">
        <h2 id="care" className="text-xl font-semibold">
          Care
        </h2>
        <p className="min-w-0 flex-1 text-sm text-ink-2">
          Age, pregnancy, illness, return from injury: shown wherever plans are made.
        </p>
        <button
          type="button"
          className="key-button"
          aria-expanded={adding}
          onClick={() => setAdding(!adding)}
        >
          {adding ? "Close" : "Add a note"}
        </button>
      </div>
      {adding && found.data && (
        <AddCaution
          athlete={athlete}
          today={found.data.today}
          usual={found.data.usual}
          done={() => setAdding(false)}
        />
      )}
      <ul>
        {all.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-hair py-1.5">
            <span className={`min-w-0 flex-1 ${one.holds ? "" : "text-ink-2"}`}>
              <span
                className={`inline-block first-letter:uppercase ${one.holds ? "font-semibold" : "line-through"}`}
              >
                {one.caution.kind}
              </span>
              <span className="block text-sm text-ink-2">
                {one.caution.by}, {date(one.caution.since)}
                {one.caution.word && `: “${one.caution.word}”`}
                {one.caution.ended_on && ` · ended ${date(one.caution.ended_on)}`}
              </span>
            </span>
            <button
              type="button"
              className="trail-link min-h-6 text-sm"
              disabled={end.isPending || restore.isPending}
              onClick={() => (one.caution.ended_on ? restore : end).mutate(one.id)}
            >
              {one.caution.ended_on ? "Reinstate" : "End it"}
            </button>
          </li>
        ))}
      </ul>
      {error && (
        <p role="alert" className="mt-2 text-sm text-high">
          {error.message}
        </p>
      )}
    </section>
  );
}

interface AddProps {
  athlete: number;
  today: string;
  usual: Record<string, string>;
  done: () => void;
}

function AddCaution({ athlete, today, usual, done }: AddProps) {
  const [kind, setKind] = useState<Kind>("return from injury");
  const [by, setBy] = useTyped("care: on whose word");
  const [word, setWord] = useTyped("care: what was said");
  const [since, setSince] = useState(today);
  const add = useChange(() => care.add(athlete, { kind, by, word, since, ended_on: null }));
  return (
    <form
      className="my-3 flex flex-wrap items-end gap-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate(undefined, { onSuccess: done });
      }}
    >
      <label>
        <span className="block text-ink-2">Kind</span>
        <select
          className="field"
          value={kind}
          onChange={(event) => setKind(event.target.value as Kind)}
        >
          {Object.keys(usual).map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </label>
      <label>
        <span className="block text-ink-2">On whose word</span>
        <input
          className="field w-44"
          value={by}
          maxLength={120}
          onChange={(event) => setBy(event.target.value)}
        />
      </label>
      <label>
        <span className="block text-ink-2">Since</span>
        <input
          type="date"
          className="field"
          value={since}
          onChange={(event) => setSince(event.target.value)}
        />
      </label>
      <label className="min-w-56 flex-1">
        <span className="block text-ink-2">What was said</span>
        <input
          className="field w-full"
          value={word}
          maxLength={500}
          onChange={(event) => setWord(event.target.value)}
        />
      </label>
      <button type="submit" className="ink-button" disabled={!by.trim() || !since || add.isPending}>
        Save the note
      </button>
      <p className="w-full max-w-prose border-l-4 border-caution pl-3">{usual[kind]}</p>
      {add.error && (
        <p role="alert" className="w-full text-high">
          {add.error.message}
        </p>
      )}
    </form>
  );
}
