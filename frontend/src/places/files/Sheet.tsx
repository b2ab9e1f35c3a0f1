import { useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { sheets } from "@/api/sheets";
import { count, number } from "@/words";
import { Columns } from "./Columns";
import { Imports } from "./Imports";
import { Preview } from "./Preview";

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
  const open = useLook(async (file: File) => {
    setPreview(null);
    setStored(null);
    const job = await sheets.read(file, setProgress);
    setToken(job.token);
    setRead(job.sheet);
    setChoice(job.sheet?.choice ?? null);
  });
  const look = useLook(async (wanted: Choice) => {
    if (token) setPreview((await sheets.preview(token, wanted, setProgress)).preview);
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
  return (
    <section aria-labelledby="sheet" className="mt-8">
      <h2 id="sheet" className="border-b border-rule pb-1 font-semibold">
        A log from a spreadsheet
      </h2>
      <Choose read={read} busy={busy} open={open.mutate} />
      {busy && <Progress progress={progress} />}
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
              onClick={() => look.mutate(choice)}
            >
              Preview
            </button>
            <button
              type="button"
              className="ink-button ml-3"
              disabled={busy || !isReady(preview, choice)}
              onClick={() => store.mutate(undefined)}
            >
              {preview ? `Import ${count(preview.sessions, "session")}` : "Import"}
            </button>
          </p>
          {preview && (
            <Preview
              preview={preview}
              choice={choice}
              // What is said of a name is looked at anew; the rest of the preview stays meanwhile.
              put={(part) => {
                const next = { ...choice, ...part };
                setChoice(next);
                look.mutate(next);
              }}
            />
          )}
        </>
      )}
      <Imports />
    </section>
  );
}

/** How far a long job is, and the way out of it. */
function Progress({ progress }: { progress: Job | null }) {
  return (
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
  );
}

interface ChooseProps {
  read: Schemas["SheetOut"] | null;
  busy: boolean;
  open: (file: File) => void;
}

/** The file, and what is known of it. */
function Choose({ read, busy, open }: ChooseProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
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
          if (file) open(file);
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
          ? `${read.name}, ${count(read.rows, "row")}${read.remembered ? "; its columns are remembered from last time" : ""}`
          : "a row for each set, with any columns; nothing is saved until you have looked it over"}
      </span>
    </p>
  );
}

/** Whether what was looked at can be stored as it is. */
const isReady = (preview: Schemas["SheetPreview"] | null, choice: Choice) =>
  preview !== null &&
  preview.problem_count === 0 &&
  preview.doubts.length === 0 &&
  preview.unknown.length === 0 &&
  (choice.take_on || preview.athletes.every((one) => one.known)) &&
  preview.sessions > 0;

function Stored({ stored }: { stored: Schemas["SheetStored"] }) {
  return (
    <p role="status" className="mt-3 border-l-4 border-ink pl-3 text-sm">
      {count(stored.sessions, "session")} with {count(stored.sets, "set")} imported
      {stored.there > 0 && `; ${stored.there} were already there`}.
    </p>
  );
}
