import { useRef } from "react";
import type { Schemas } from "@/api/client";
import { sheets } from "@/api/sheets";
import { count, number } from "@/words";
import { Columns } from "./Columns";
import { Imports } from "./Imports";
import { Preview } from "./Preview";
import { useSheetInHand } from "./useSheetInHand";

type Job = Schemas["JobOut"];
type Choice = Schemas["SheetChoice"];

/** A log from a spreadsheet: choose the file, say what its columns mean, look, store; undo it. */
export function Sheet() {
  const hand = useSheetInHand();
  const { read, choice, preview, stored, busy } = hand;
  return (
    <section aria-labelledby="sheet" className="mt-8">
      <h2 id="sheet" className="border-b border-rule pb-1 font-semibold">
        A log from a spreadsheet
      </h2>
      <Choose read={read} busy={busy} open={hand.open} putAway={hand.putAway} />
      {busy && !read && <Progress progress={hand.progress} />}
      {hand.error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-3 text-sm">
          {hand.error.message}
        </p>
      )}
      {stored && <Stored stored={stored} />}
      {read && choice && (
        <>
          <Columns read={read} choice={choice} put={hand.put} />
          <div className="mt-3 flex flex-wrap items-baseline gap-3">
            <button type="button" className="key-button" disabled={busy} onClick={hand.look}>
              Preview
            </button>
            <button
              type="button"
              className="ink-button"
              disabled={busy || !isReady(preview, choice)}
              onClick={hand.store}
            >
              {preview ? `Import ${count(preview.sessions, "session")}` : "Import"}
            </button>
            {/* Beside the buttons: what is below does not move while it works. */}
            {busy && <Progress progress={hand.progress} />}
          </div>
          {preview && (
            <Preview preview={preview} choice={choice} put={hand.settle} saveLeft={hand.saveLeft} />
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
    <p role="status" className="text-sm">
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
  putAway: () => void;
}

/** The file, and what is known of it. */
function Choose({ read, busy, open, putAway }: ChooseProps) {
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
      {read && (
        <button type="button" className="trail-link" disabled={busy} onClick={putAway}>
          Remove this file
        </button>
      )}
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
