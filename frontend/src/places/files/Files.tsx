import { useRef, useState } from "react";
import { Link } from "react-router";
import { Refusal, type Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { files } from "@/api/files";
import { useRoster } from "@/api/roster";
import { Failure } from "@/frame/Failure";
import { weekPath } from "@/frame/places";
import { weekName } from "@/words";
import { Sheet } from "./Sheet";

interface Picked {
  name: string;
  text: string;
}

/** Books in and out, and athletes taken off the roster. */
export function Files() {
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-4 pb-10">
      <h1 className="text-xl font-semibold">Files</h1>
      <p className="mb-5 max-w-prose text-sm text-ink-2">
        A book is one athlete&rsquo;s movements, rules, plan and log in one open JSON file. It goes
        in whole or not at all, and comes out so that it counts the same elsewhere.
      </p>
      <div className="grid grid-cols-2 items-start gap-12">
        <Import />
        <Export />
      </div>
      <Sheet />
    </main>
  );
}

function Import() {
  const [picked, setPicked] = useState<Picked | null>(null);
  const [asName, setAsName] = useState("");
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const bring = useChange((options: { name?: string; replace?: boolean }) =>
    files.import(picked?.text ?? "", options),
  );
  const pick = async (file: File | undefined) => {
    if (!file) return;
    bring.reset();
    setAsName("");
    setPicked({ name: file.name, text: await file.text() });
  };
  const taken = bring.error instanceof Refusal && bring.error.kind.endsWith("name-taken");
  return (
    <section aria-labelledby="import">
      <h2 id="import" className="border-b border-rule pb-1 font-semibold">
        Import a book
      </h2>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          void pick(event.dataTransfer.files[0]);
        }}
        className={`mt-3 border border-dashed px-5 py-6 ${over ? "border-ink bg-band" : "border-rule"}`}
      >
        <input
          ref={input}
          type="file"
          accept=".json,application/json"
          className="sr-only"
          aria-label="Book file"
          tabIndex={-1}
          onChange={(event) => {
            void pick(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
        <button type="button" className="key-button" onClick={() => input.current?.click()}>
          Choose a file
        </button>
        <span className="ml-3 text-sm text-ink-2">{picked ? picked.name : "or drop it here"}</span>
      </div>
      {picked && !bring.isSuccess && !taken && (
        <button
          type="button"
          className="ink-button mt-3"
          disabled={bring.isPending}
          onClick={() => bring.mutate({})}
        >
          {bring.isPending ? "Importing…" : "Import"}
        </button>
      )}
      {taken && (
        <div className="mt-3 border-l-4 border-caution pl-3 text-sm">
          <p role="alert">{bring.error?.message}</p>
          <form
            className="mt-2 flex gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (asName.trim()) bring.mutate({ name: asName.trim() });
            }}
          >
            <input
              value={asName}
              onChange={(event) => setAsName(event.target.value)}
              placeholder="Another name"
              aria-label="Import under another name"
              className="field flex-1"
              maxLength={120}
            />
            <button type="submit" className="key-button" disabled={!asName.trim()}>
              Import under it
            </button>
          </form>
          <button
            type="button"
            className="key-button mt-2"
            onClick={() => bring.mutate({ replace: true })}
          >
            Replace; the old one is put aside
          </button>
        </div>
      )}
      {bring.error && !taken && (
        <div className="-mx-6">
          <Failure error={bring.error} />
        </div>
      )}
      {bring.data && <Imported result={bring.data} />}
    </section>
  );
}

function Imported({ result }: { result: Schemas["ImportOut"] }) {
  return (
    <div role="status" className="mt-3 border-l-4 border-ink pl-3 text-sm">
      <p>
        <Link
          className="trail-link font-semibold"
          to={weekPath(result.athlete.id, result.week, "sheet")}
        >
          {result.athlete.name}
        </Link>{" "}
        is on the roster: {result.planned} planned and {result.completed} completed sessions,{" "}
        {result.sets} sets.
      </p>
      {result.new_movements.length > 0 && (
        <p className="mt-1">New in the house: {result.new_movements.join(", ")}.</p>
      )}
      {result.own_movements.length > 0 && (
        <p className="mt-1">
          Counted otherwise by the house, so kept as this athlete&rsquo;s own:{" "}
          {result.own_movements.join(", ")}.
        </p>
      )}
      {result.warnings.map((line) => (
        <p key={line} className="mt-1 text-caution">
          {line}
        </p>
      ))}
    </div>
  );
}

const OUT = { book: "Book", "log.csv": "CSV", "log.xlsx": "XLSX" };

function Export() {
  const roster = useRoster();
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
      {removed && (
        <p role="status" className="mt-3 border-l-4 border-ink pl-3 text-sm">
          {removed.name} is off the roster; nothing is lost.{" "}
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
      <p className="flex flex-wrap items-baseline gap-3 pt-2 text-sm text-ink-2">
        <label>
          Out from{" "}
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
            <li key={one.id} className="flex items-baseline gap-5 border-b border-hair py-1">
              <Link to={weekPath(one.id, one.week, "sheet")} className="flex-1 hover:underline">
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
                className="trail-link text-sm text-ink-2"
                aria-label={`Take ${one.name} off the roster`}
                onClick={() => remove.mutate({ id: one.id, name: one.name })}
              >
                Take off
              </button>
            </li>
          ))}
      </ul>
      {roster.data?.athletes.length === 0 && (
        <p className="mt-3 text-sm text-ink-2">
          Nobody yet. A book that you import stands here, ready to be exported.
        </p>
      )}
    </section>
  );
}
