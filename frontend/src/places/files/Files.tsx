import { useState } from "react";
import { Link } from "react-router";
import { useChange } from "@/api/changes";
import { files, useArchived } from "@/api/files";
import { useRoster } from "@/api/roster";
import { Failure } from "@/frame/Failure";
import { weekPath } from "@/frame/places";
import { weekName } from "@/words";
import { Archive } from "./Archive";
import { DailyCopies } from "./DailyCopies";
import { Import } from "./Import";
import { MadeUpClub } from "./MadeUpClub";
import { Sheet } from "./Sheet";

/** Books in and out, and athletes taken off the roster. */
export function Files() {
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-4 pb-10">
      <h1 className="text-xl font-semibold">Files</h1>
      <p className="mb-5 max-w-prose text-sm text-ink-2">
        A book is one athlete&rsquo;s movements, rules, plan and log in one open JSON file. It is
        imported whole or not at all, and an exported book counts the same anywhere else.
      </p>
      <div className="grid grid-cols-[3fr_2fr] items-start gap-12 max-lg:grid-cols-1 [&>*]:min-w-0">
        <div>
          <Import />
          <Sheet />
          <DailyCopies />
        </div>
        <div>
          <Export />
          <Archive />
          <MadeUpClub />
        </div>
      </div>
    </main>
  );
}

const OUT = { book: "Book", "log.csv": "CSV", "log.xlsx": "XLSX" };

function Export() {
  const roster = useRoster();
  const archived = useArchived();
  const [removed, setRemoved] = useState<{ id: number; name: string } | null>(null);
  const [range, setRange] = useState({ first: "", last: "" });
  const query = new URLSearchParams(Object.entries(range).filter(([, day]) => day)).toString();
  const remove = useChange((one: { id: number; name: string }) =>
    files.remove(one.id).then(() => setRemoved(one)),
  );
  const restore = useChange((id: number) => files.restore(id).then(() => setRemoved(null)));
  return (
    <section aria-labelledby="export">
      <h2 id="export" className="border-b border-rule pb-1 font-semibold">
        On the roster
      </h2>
      {removed && archived.data?.athletes.some((one) => one.id === removed.id) && (
        <p role="status" className="mt-3 border-l-4 border-ink pl-3 text-sm">
          {removed.name} is archived; nothing is lost.{" "}
          <button
            type="button"
            className="key-button ml-2"
            onClick={() => restore.mutate(removed.id)}
          >
            Undo
          </button>
        </p>
      )}
      {(remove.error ?? restore.error) && (
        <p role="alert" className="mt-2 text-sm text-high">
          {(remove.error ?? restore.error)?.message}
        </p>
      )}
      {roster.error && <Failure error={roster.error} />}
      <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1 py-2 text-sm text-ink-2">
        <label>
          Export from{" "}
          <input
            type="date"
            value={range.first}
            onChange={(event) => setRange({ ...range, first: event.target.value })}
            className="field py-0"
          />
        </label>
        <label>
          to{" "}
          <input
            type="date"
            value={range.last}
            onChange={(event) => setRange({ ...range, last: event.target.value })}
            className="field py-0"
          />
        </label>
        {query === "" && <span>everything, if no day is chosen</span>}
      </p>
      <ul>
        {[...(roster.data?.athletes ?? [])]
          .sort((one, two) => one.name.localeCompare(two.name))
          .map((one) => (
            <li
              key={one.id}
              className="flex flex-wrap items-baseline gap-x-5 border-b border-hair py-1 max-lg:leading-7"
            >
              <Link
                to={weekPath(one.id, one.week, "sheet")}
                className="flex-1 hover:underline max-md:basis-full"
              >
                {one.name}
              </Link>
              <span className="text-sm text-ink-2">to {weekName(one.week).toLowerCase()}</span>
              {(["book", "log.csv", "log.xlsx"] as const).map((what) => (
                <a
                  key={what}
                  href={`/api/athletes/${one.id}/${what}${query && `?${query}`}`}
                  download
                  aria-label={`${OUT[what]} of ${one.name}`}
                  className="trail-link text-sm"
                >
                  {OUT[what]}
                </a>
              ))}
              <button
                type="button"
                className="trail-link min-h-6 text-sm text-ink-2"
                aria-label={`Archive ${one.name}`}
                onClick={() => remove.mutate({ id: one.id, name: one.name })}
              >
                Archive
              </button>
            </li>
          ))}
      </ul>
      {roster.data?.athletes.length === 0 && (
        <p className="mt-3 text-sm text-ink-2">
          Nobody yet. Books you import are listed here, ready to export.
        </p>
      )}
    </section>
  );
}
