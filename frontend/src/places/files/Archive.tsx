import { useState } from "react";
import { useChange } from "@/api/changes";
import { files, useArchived } from "@/api/files";
import { DialogSheet } from "@/frame/DialogSheet";
import { LastLook } from "@/frame/LastLook";
import { day } from "@/words";

type Person = { id: number; name: string };

/** Who is archived: put back, given out whole, or deleted for good. */
export function Archive() {
  const found = useArchived();
  const [going, setGoing] = useState<Person | null>(null);
  const back = useChange((id: number) => files.restore(id));
  const all = found.data?.athletes ?? [];
  const error = found.error ?? back.error;
  return (
    <section aria-labelledby="archive" className="mt-8 text-sm">
      <h2 id="archive" className="border-b border-rule pb-1 text-base font-semibold">
        Archived
      </h2>
      {error && (
        <p role="alert" className="mt-2 text-high">
          {error.message}
        </p>
      )}
      {all.length === 0 && (
        <p className="mt-2 text-ink-2">
          Nobody. Archived athletes keep their plans, logs and notes, and can be restored.
        </p>
      )}
      <ul>
        {all.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-baseline gap-x-5 border-b border-hair py-1 max-lg:leading-8"
          >
            <span className="flex-1">{one.name}</span>
            <span className="text-ink-2">since {day(one.day)}</span>
            <button
              type="button"
              className="trail-link min-h-6"
              aria-label={`Restore ${one.name}`}
              onClick={() => back.mutate(one.id)}
            >
              Restore
            </button>
            <a
              href={`/api/athletes/${one.id}/everything`}
              download
              className="trail-link"
              aria-label={`Everything about ${one.name}`}
            >
              Everything
            </a>
            <button
              type="button"
              className="trail-link min-h-6 text-high"
              aria-label={`Delete for good: ${one.name}`}
              onClick={() => setGoing(one)}
            >
              Delete for good
            </button>
          </li>
        ))}
      </ul>
      <Deleting key={going?.id ?? 0} person={going} close={() => setGoing(null)} />
    </section>
  );
}

/** The last look before somebody is deleted: the name is typed once more. */
function Deleting({ person, close }: { person: Person | null; close: () => void }) {
  const [typed, setTyped] = useState("");
  const remove = useChange(async () => {
    if (person) await files.deleteForGood(person.id, typed);
    close();
  });
  return (
    <DialogSheet
      open={person !== null}
      close={close}
      title={`Delete ${person?.name ?? ""} for good?`}
    >
      <p>
        Plans, logs, notes, goals, restrictions, acceptances and signatures go, and cannot be
        brought back. Daily copies and backups made before still have them: delete those too where
        the law requires it. Nobody else&rsquo;s figures change.
      </p>
      <p className="mt-2">
        <a href={`/api/athletes/${person?.id ?? 0}/everything`} download className="trail-link">
          Save everything first
        </a>
      </p>
      <label className="mt-3 block">
        The name, exactly as above
        <input
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="field mt-0.5 block w-full"
        />
      </label>
      <LastLook
        says="Delete for good"
        ready={typed.trim() !== "" && !remove.isPending}
        error={remove.error}
        press={() => remove.mutate(undefined)}
        close={close}
      />
    </DialogSheet>
  );
}
