import { useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { files } from "@/api/files";
import { Failure } from "@/frame/Failure";
import { weekPath } from "@/frame/places";
import { count, date } from "@/words";

interface Picked {
  name: string;
  text: string;
}

/** A book in: chosen, looked at, and only then stored. */
export function Import() {
  const [picked, setPicked] = useState<Picked | null>(null);
  const look = useLook(files.look);
  const bring = useChange((options: { name?: string; replace?: boolean }) =>
    files.import(picked?.text ?? "", options),
  );
  const pick = async (file: File | undefined) => {
    if (!file) return;
    bring.reset();
    const text = await file.text();
    setPicked({ name: file.name, text });
    look.mutate(text);
  };
  const error = bring.error ?? look.error;
  return (
    <section aria-labelledby="import">
      <h2 id="import" className="border-b border-rule pb-1 font-semibold">
        Import a book
      </h2>
      <Chooser name={picked?.name ?? null} pick={pick} />
      {look.data && !bring.isSuccess && (
        <Offered look={look.data} busy={bring.isPending} bring={bring.mutate} />
      )}
      {error && (
        <div className="-mx-6">
          <Failure error={error} />
        </div>
      )}
      {bring.data && <Imported result={bring.data} />}
    </section>
  );
}

function Chooser({ name, pick }: { name: string | null; pick: (file?: File) => Promise<void> }) {
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  return (
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
      <span className="ml-3 text-sm text-ink-2">{name ?? "or drop it here"}</span>
    </div>
  );
}

type Bring = (options: { name?: string; replace?: boolean }) => void;

/** What is in the book, and what it would add, before anything of it is stored. */
function Offered({
  look,
  busy,
  bring,
}: {
  look: Schemas["ImportLook"];
  busy: boolean;
  bring: Bring;
}) {
  return (
    <div className="mt-3 border-l-4 border-rule pl-3 text-sm">
      <p>
        <span className="font-semibold">{look.name}</span>: {look.planned} planned and{" "}
        {look.completed} completed sessions, {look.sets} sets
        {look.first && look.last ? `, ${date(look.first)} to ${date(look.last)}` : ""}.
      </p>
      <Names what="It adds to the house" names={look.new_movements} />
      <Names
        what="The house counts differently, so these stay the athlete&rsquo;s own"
        names={look.own_movements}
      />
      {look.warnings.map((line) => (
        <p key={line} className="mt-1 text-caution">
          {line}
        </p>
      ))}
      {look.taken === null ? (
        <button type="button" className="ink-button mt-3" disabled={busy} onClick={() => bring({})}>
          {busy ? "Importing…" : "Import"}
        </button>
      ) : (
        <Taken name={look.taken} busy={busy} bring={bring} />
      )}
    </div>
  );
}

const SHOWN = 12;

function Names({ what, names }: { what: string; names: string[] }) {
  if (names.length === 0) return null;
  const more = names.length - SHOWN;
  return (
    <p className="mt-1">
      {what} {count(names.length, "movement")}: {names.slice(0, SHOWN).join(", ")}
      {more > 0 && ` and ${more} more`}.
    </p>
  );
}

function Taken({ name, busy, bring }: { name: string; busy: boolean; bring: Bring }) {
  const [asName, setAsName] = useState("");
  return (
    <>
      <p role="alert" className="mt-2 text-caution">
        {name} is on the roster already: import under another name, or replace that one.
      </p>
      <form
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (asName.trim()) bring({ name: asName.trim() });
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
        <button type="submit" className="key-button" disabled={busy || !asName.trim()}>
          Import under it
        </button>
      </form>
      <button
        type="button"
        className="key-button mt-2"
        disabled={busy}
        onClick={() => bring({ replace: true })}
      >
        Replace; the old one is archived
      </button>
    </>
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
      <Names what="New in the house are" names={result.new_movements} />
    </div>
  );
}
