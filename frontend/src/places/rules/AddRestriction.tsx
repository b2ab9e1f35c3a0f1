import { useState } from "react";
import { dayAfter } from "@/words";
import { useChange } from "@/api/changes";
import { restrictions } from "@/api/restrictions";
import { DialogSheet } from "@/frame/DialogSheet";
import { Limits, OnWhoseWord, Which } from "./RestrictionFields";
import { type About, ABOUT, type Said, isReady, limitsOf, nothingSaid } from "./restriction";

interface Props {
  athlete: number;
  today: string;
  subjects: Record<string, string[]>;
  close: () => void;
}

/** A new restriction: about what, how far, on whose word and from when. */
export function AddRestriction({ athlete, today, subjects, close }: Props) {
  const [said, setSaid] = useState<Said>(() => nothingSaid(today));
  const put = (part: Partial<Said>) => setSaid((now) => ({ ...now, ...part }));
  const keep = useChange(() =>
    restrictions.add(athlete, {
      about: said.about,
      subject: said.subject,
      by: said.by,
      word: said.word,
      since: said.since,
      ...limitsOf(said),
      lifted_on: said.until ? dayAfter(said.until, 1) : null,
      lifted_by: said.until ? said.by : null,
    }),
  );
  return (
    <DialogSheet open close={close} title="A restriction" wide>
      <form
        className="grid grid-cols-2 gap-x-6 gap-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate(undefined, { onSuccess: close });
        }}
      >
        <label>
          About
          <select
            value={said.about}
            onChange={(event) => put({ about: event.target.value as About, subject: "" })}
            className="field mt-0.5 block w-full"
          >
            {Object.entries(ABOUT).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <Which said={said} names={subjects[said.about] ?? []} put={put} />
        <Limits said={said} put={put} />
        <OnWhoseWord said={said} put={put} />
        {keep.error && (
          <p role="alert" className="col-span-2 text-sm text-high">
            {keep.error.message}
          </p>
        )}
        <p className="col-span-2 text-sm text-ink-2">
          Pain and injury are for a licensed practitioner. It stays in force until its last day or
          until somebody lifts it, and stays on record after that.
        </p>
        <p className="col-span-2 flex gap-3">
          <button type="submit" className="ink-button" disabled={!isReady(said) || keep.isPending}>
            Add it
          </button>
          <button type="button" className="key-button" onClick={close}>
            Cancel
          </button>
        </p>
      </form>
    </DialogSheet>
  );
}
