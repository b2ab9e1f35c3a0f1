import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { restrictions, useRestrictions } from "@/api/restrictions";
import { DialogSheet } from "@/frame/DialogSheet";
import { date } from "@/words";
import { AddRestriction } from "./AddRestriction";
import { useTyped } from "@/frame/useTyped";

type Kept = Schemas["RestrictionOut"];
/** What the athlete is to avoid, on whose word; every plan is checked against it. */
export function Restrictions({ athlete }: { athlete: number }) {
  const found = useRestrictions(athlete);
  const [adding, setAdding] = useState(false);
  const [lifting, setLifting] = useState<Kept | null>(null);
  const restore = useChange((id: number) => restrictions.restore(athlete, id));
  const all = found.data?.restrictions ?? [];
  return (
    <section aria-labelledby="restrictions" className="mb-7 max-w-3xl">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule pb-1">
        <h2 id="restrictions" className="text-xl font-semibold">
          Restrictions
        </h2>
        <p className="min-w-0 flex-1 basis-64 text-sm text-ink-2">
          What this athlete is to avoid or limit; every plan and log is checked against it.
        </p>
        <button type="button" className="key-button ml-auto" onClick={() => setAdding(true)}>
          Add one
        </button>
      </div>
      {all.length === 0 && found.data && (
        <p className="py-2 text-sm text-ink-2">
          None. An old joint problem belongs here, on the word of the practitioner who set the
          limit.
        </p>
      )}
      <ul>
        {all.map((one) => (
          <One
            key={one.id}
            one={one}
            lift={() => setLifting(one)}
            restore={() => restore.mutate(one.id)}
            busy={restore.isPending}
          />
        ))}
      </ul>
      {(found.error ?? restore.error) && (
        <p role="alert" className="mt-2 text-sm text-high">
          {(found.error ?? restore.error)?.message}
        </p>
      )}
      {adding && found.data && (
        <AddRestriction
          athlete={athlete}
          today={found.data.today}
          subjects={found.data.subjects}
          close={() => setAdding(false)}
        />
      )}
      {lifting && <Lift athlete={athlete} one={lifting} close={() => setLifting(null)} />}
    </section>
  );
}

interface OneProps {
  one: Kept;
  lift: () => void;
  restore: () => void;
  busy: boolean;
}

function One({ one, lift, restore, busy }: OneProps) {
  const { by, since, word, lifted_by, lifted_on } = one.restriction;
  return (
    <li className="flex items-baseline gap-4 border-b border-hair py-1.5">
      <span className={`min-w-0 flex-1 ${one.holds ? "" : "text-ink-2"}`}>
        <span
          className={`inline-block first-letter:uppercase ${one.holds ? "font-semibold" : one.over ? "line-through" : ""}`}
        >
          {one.words}
        </span>
        <span className="block text-sm text-ink-2">
          {by}, {date(since)}
          {word && `: “${word}”`}
          {one.over && lifted_on && ` · lifted by ${lifted_by}, ${date(lifted_on)}`}
          {!one.over && one.last_day && ` · until ${date(one.last_day)}`}
          {!one.holds && !one.over && " · not yet in force"}
        </span>
      </span>
      {one.over ? (
        <button
          type="button"
          className="trail-link min-h-6 text-sm"
          disabled={busy}
          onClick={restore}
        >
          Reinstate
        </button>
      ) : (
        <button type="button" className="trail-link min-h-6 text-sm" onClick={lift}>
          Lift it
        </button>
      )}
    </li>
  );
}

/** A restriction ends on the word of a person. */
function Lift({ athlete, one, close }: { athlete: number; one: Kept; close: () => void }) {
  const [by, setBy] = useTyped(`who lifts ${one.id}`);
  const keep = useChange(() => restrictions.lift(athlete, one.id, by));
  return (
    <DialogSheet open close={close} title={`Lift “${one.words}”`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate(undefined, { onSuccess: close });
        }}
      >
        <p>
          It was set on the word of {one.restriction.by}. Lift it on their word, or on that of
          another licensed practitioner.
        </p>
        <label className="mt-3 block">
          Who lifts it
          <input
            value={by}
            maxLength={120}
            onChange={(event) => setBy(event.target.value)}
            className="field mt-0.5 block w-full"
          />
        </label>
        {keep.error && (
          <p role="alert" className="mt-2 text-sm text-high">
            {keep.error.message}
          </p>
        )}
        <p className="mt-4 flex gap-3">
          <button type="submit" className="ink-button" disabled={!by.trim() || keep.isPending}>
            Lift it from today on
          </button>
          <button type="button" className="key-button" onClick={close}>
            Cancel
          </button>
        </p>
      </form>
    </DialogSheet>
  );
}
