import { type Entry, useTakingBack } from "@/api/journal";
import { useMay } from "@/api/me";
import { moment } from "@/words";

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
  const { swap, busy, error } = useTakingBack();
  const may = useMay("plan");
  return (
    <>
      {error && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3">
          {error.message}
        </p>
      )}
      <ul className="text-sm">
        {entries.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-hair py-1.5"
          >
            <span className="w-44 shrink-0 text-ink-2">{when(one)}</span>
            <span className="min-w-0 flex-1 basis-64">
              {!ofOne && one.name && <span className="font-semibold">{one.name}: </span>}
              <span className={one.undone ? "text-ink-2 line-through" : ""}>{one.says}</span>
              {one.times > 1 && <span className="text-ink-2">, {one.times} times</span>}
            </span>
            <span className="w-56 truncate text-ink-2">
              {[one.who, one.place].filter(Boolean).join(", ")}
            </span>
            <span className="flex w-36 justify-end gap-3">
              {may && one.can_undo && one.together > 1 && (
                <button
                  type="button"
                  className="trail-link min-h-6"
                  disabled={busy}
                  onClick={() => swap(one, true)}
                >
                  {`${verb(one)} all ${one.together}`}
                </button>
              )}
              {may && one.can_undo && (
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
        ))}
      </ul>
    </>
  );
}
