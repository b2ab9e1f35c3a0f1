import { useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { useRoster } from "@/api/roster";
import { sheets, useImports } from "@/api/sheets";
import { date, number } from "@/words";

type Job = Schemas["JobOut"];
type Read = Schemas["SheetOut"];
type Choice = Schemas["SheetChoice"];

/** A log from a spreadsheet: choose the file, say what its columns mean, look, store; undo it. */
export function Sheet() {
  const [token, setToken] = useState<string | null>(null);
  const [read, setRead] = useState<Read | null>(null);
  const [choice, setChoice] = useState<Choice | null>(null);
  const [preview, setPreview] = useState<Schemas["SheetPreview"] | null>(null);
  const [stored, setStored] = useState<Schemas["SheetStored"] | null>(null);
  const [progress, setProgress] = useState<Job | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const open = useLook(async (file: File) => {
    setPreview(null);
    setStored(null);
    const job = await sheets.read(file, setProgress);
    setToken(job.token);
    setRead(job.sheet);
    setChoice(job.sheet?.choice ?? null);
  });
  const look = useLook(async () => {
    if (token && choice) setPreview((await sheets.preview(token, choice, setProgress)).preview);
  });
  const store = useChange(async () => {
    if (!token || !choice) return;
    setStored((await sheets.store(token, choice, setProgress)).stored);
    setPreview(null);
    setRead(null);
  });
  const busy = open.isPending || look.isPending || store.isPending;
  const error = open.error ?? look.error ?? store.error;
  const put = (part: Partial<Choice>) => {
    if (choice) setChoice({ ...choice, ...part });
    setPreview(null);
  };
  const ready =
    preview !== null &&
    preview.problem_count === 0 &&
    preview.unknown.length === 0 &&
    preview.athletes.every((one) => one.known) &&
    preview.sessions > 0;
  return (
    <section aria-labelledby="sheet" className="mt-8">
      <h2 id="sheet" className="border-b border-rule pb-1 font-semibold">
        A log from a spreadsheet
      </h2>
      <p className="mt-2 flex flex-wrap items-baseline gap-3 text-sm">
        <input
          ref={input}
          type="file"
          accept=".csv,.txt,.tsv,.xlsx"
          className="sr-only"
          aria-label="Spreadsheet file"
          tabIndex={-1}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = "";
            if (file) open.mutate(file);
          }}
        />
        <button
          type="button"
          className="key-button"
          disabled={busy}
          onClick={() => input.current?.click()}
        >
          Choose a CSV or XLSX file
        </button>
        <span className="text-ink-2">
          {read
            ? `${read.name}, ${number(read.rows, 0)} rows${read.remembered ? "; its columns are known from the last time" : ""}`
            : "one row for each set, of whatever columns; nothing is stored before you have looked at it"}
        </span>
      </p>
      {busy && (
        <p role="status" className="mt-2 text-sm">
          {progress && !progress.finished
            ? `${progress.stage}${progress.done ? `, ${number(progress.done, 0)}` : ""}${progress.of ? ` of ${number(progress.of, 0)}` : ""}…`
            : "one moment…"}
          {progress?.of ? (
            <progress
              className="ml-3 align-middle accent-ink"
              value={progress.done}
              max={progress.of}
              aria-label={progress.stage}
            />
          ) : null}
          {progress && !progress.finished && (
            <button
              type="button"
              className="key-button ml-3"
              onClick={() => void sheets.cancel(progress.token)}
            >
              Cancel
            </button>
          )}
        </p>
      )}
      {error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-3 text-sm">
          {error.message}
        </p>
      )}
      {stored && <Stored stored={stored} />}
      {read && choice && (
        <>
          <Columns read={read} choice={choice} put={put} />
          <p className="mt-3">
            <button
              type="button"
              className="key-button"
              disabled={busy}
              onClick={() => look.mutate(undefined)}
            >
              Preview
            </button>
            <button
              type="button"
              className="ink-button ml-3"
              disabled={busy || !ready}
              onClick={() => store.mutate(undefined)}
            >
              {preview
                ? `Store ${preview.sessions} session${preview.sessions === 1 ? "" : "s"}`
                : "Store"}
            </button>
          </p>
          {preview && <Preview preview={preview} choice={choice} put={put} />}
        </>
      )}
      <Imports />
    </section>
  );
}

function Columns({
  read,
  choice,
  put,
}: {
  read: Read;
  choice: Choice;
  put: (part: Partial<Choice>) => void;
}) {
  const roster = useRoster();
  const meaning = (at: number) =>
    Object.entries(choice.columns).find(([, place]) => place === at)?.[0] ?? "";
  const set = (at: number, name: string) => {
    const others = Object.entries(choice.columns).filter(
      ([known, place]) => place !== at && known !== name,
    );
    put({ columns: Object.fromEntries(name ? [...others, [name, at]] : others) });
  };
  return (
    <>
      {/* It scrolls and holds fields: wide files have many columns. */}
      <div className="mt-3 max-w-full overflow-x-auto">
        <table className="text-sm">
          <thead>
            <tr className="text-left">
              {read.heads.map((head, at) => (
                <th
                  key={`${head}/${at}`}
                  scope="col"
                  className="max-w-40 truncate pr-4 font-semibold"
                >
                  {head}
                </th>
              ))}
            </tr>
            <tr>
              {read.heads.map((head, at) => (
                <td key={`${head}/${at}`} className="pr-4 pb-1">
                  <select
                    aria-label={`Column ${head} means`}
                    value={meaning(at)}
                    onChange={(event) => set(at, event.target.value)}
                    className={`h-6 border-b border-rule bg-sheet ${meaning(at) ? "" : "text-ink-2"}`}
                  >
                    <option value="">left out</option>
                    {read.columns.map((one) => (
                      <option key={one.name} value={one.name}>
                        {one.title}
                      </option>
                    ))}
                  </select>
                </td>
              ))}
            </tr>
          </thead>
          <tbody>
            {read.sample.map((row, line) => (
              // Rows of a file have no name but their place.
              <tr key={line} className="border-t border-hair text-ink-2">
                {read.heads.map((head, at) => (
                  <td key={`${head}/${at}`} className="max-w-40 truncate pr-4">
                    {row[at] ?? ""}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-sm">
        <Pick
          label="Days are written"
          value={choice.date_order}
          options={{ dmy: "day, month, year", mdy: "month, day, year", ymd: "year first" }}
          put={(value) => put({ date_order: value as Choice["date_order"] })}
        />
        <Pick
          label="Loads are in"
          value={choice.unit}
          options={{ kg: "kg", lb: "lb" }}
          put={(value) => put({ unit: value as Choice["unit"] })}
        />
        <Pick
          label="Decimals have a"
          value={choice.decimal}
          options={{ ".": "point", ",": "comma" }}
          put={(value) => put({ decimal: value as Choice["decimal"] })}
        />
        {choice.columns.athlete === undefined && (
          <Pick
            label="Whose log"
            value={String(choice.athlete ?? "")}
            put={(value) => put({ athlete: value ? Number(value) : null })}
            options={{
              "": "choose",
              ...Object.fromEntries(
                (roster.data?.athletes ?? []).map((one) => [String(one.id), one.name]),
              ),
            }}
          />
        )}
      </p>
    </>
  );
}

function Pick({
  label,
  value,
  options,
  put,
}: {
  label: string;
  value: string;
  options: Record<string, string>;
  put: (value: string) => void;
}) {
  return (
    <label className="text-ink-2">
      {label}{" "}
      <select
        value={value}
        onChange={(event) => put(event.target.value)}
        className="h-6 border-b border-rule bg-sheet text-ink"
      >
        {Object.entries(options).map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

function Preview({
  preview,
  choice,
  put,
}: {
  preview: Schemas["SheetPreview"];
  choice: Choice;
  put: (part: Partial<Choice>) => void;
}) {
  const strangers = preview.athletes.filter((one) => !one.known);
  return (
    <div className="mt-3 text-sm">
      <p className="font-semibold">
        {preview.sessions} new session{preview.sessions === 1 ? "" : "s"}, {number(preview.sets, 0)}{" "}
        sets
        {preview.there > 0 && (
          <span className="font-normal text-ink-2">
            ; {preview.there} are in the book already and stay out
          </span>
        )}
      </p>
      {strangers.length > 0 && (
        <p role="alert" className="mt-1 border-l-4 border-high pl-3">
          Nobody on the roster is called {strangers.map((one) => one.name).join(", ")}. Correct the
          names in the file, or take them on first.
        </p>
      )}
      {preview.unknown.length > 0 && (
        <section aria-label="Movements to name" className="mt-2 border-l-4 border-caution pl-3">
          <p>
            These movements are called otherwise here. What is chosen is remembered as another name.
          </p>
          {preview.unknown.map((one) => (
            <label key={one.name} className="flex items-baseline gap-3">
              <span className="w-56 truncate">
                {one.name} <span className="text-ink-2">{one.count} rows</span>
              </span>
              <input
                aria-label={`${one.name} is`}
                placeholder={one.near[0] ?? ""}
                className="field w-64 py-0"
                onBlur={(event) => {
                  if (event.target.value.trim())
                    put({
                      movements: { ...choice.movements, [one.name]: event.target.value.trim() },
                    });
                }}
              />
              {one.near.slice(0, 3).map((near) => (
                <button
                  key={near}
                  type="button"
                  className="trail-link min-h-6"
                  onClick={() => put({ movements: { ...choice.movements, [one.name]: near } })}
                >
                  {near}
                </button>
              ))}
            </label>
          ))}
        </section>
      )}
      {preview.problems.length > 0 && (
        <ul
          aria-label="Rows with problems"
          className="mt-2 max-h-48 overflow-auto border-l-4 border-high pl-3"
        >
          {preview.problems.map((one) => (
            <li key={`${one.row}/${one.column}`}>
              Row {one.row}
              {one.column && `, ${one.column}`}: {one.message}
            </li>
          ))}
          {preview.problem_count > preview.problems.length && (
            <li>and {preview.problem_count - preview.problems.length} more</li>
          )}
        </ul>
      )}
      <ul className="mt-2">
        {preview.shown.map((one, at) => (
          // Two sessions may be alike in all that is shown.
          <li key={at} className="border-b border-hair py-0.5">
            <span className="font-semibold">{one.athlete}</span>, {date(one.date)} {one.title}:{" "}
            <span className="text-ink-2">
              {one.sets.slice(0, 4).join("; ")}
              {one.sets.length > 4 && "; …"}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Stored({ stored }: { stored: Schemas["SheetStored"] }) {
  return (
    <p role="status" className="mt-3 border-l-4 border-ink pl-3 text-sm">
      {stored.sessions} session{stored.sessions === 1 ? "" : "s"} with {number(stored.sets, 0)} sets
      are in the book
      {stored.there > 0 && `; ${stored.there} were there already`}.
    </p>
  );
}

function Imports() {
  const found = useImports();
  const undo = useChange((id: number) => sheets.undo(id));
  const all = found.data?.imports ?? [];
  if (all.length === 0) return null;
  return (
    <div className="mt-4 text-sm">
      <h3 className="text-ink-2 italic">Files that came in</h3>
      <ul>
        {all.map((one) => (
          <li
            key={one.id}
            className="flex max-w-xl items-baseline gap-4 border-b border-hair py-0.5"
          >
            <span className="min-w-0 flex-1 truncate">{one.name}</span>
            <span className="text-ink-2">
              {date(one.day)}, {one.sessions} sessions
            </span>
            <button
              type="button"
              className="trail-link min-h-6"
              disabled={undo.isPending}
              onClick={() => undo.mutate(one.id)}
            >
              Undo
            </button>
          </li>
        ))}
      </ul>
      {undo.error && (
        <p role="alert" className="text-high">
          {undo.error.message}
        </p>
      )}
    </div>
  );
}
