import { useState } from "react";
import type { Schemas } from "@/api/client";
import { count, date } from "@/words";

type Choice = Schemas["SheetChoice"];

interface PreviewProps {
  preview: Schemas["SheetPreview"];
  choice: Choice;
  put: (part: Partial<Choice>) => void;
  saveLeft: () => void;
}

/** What would come in of a file, and what stands in the way. */
export function Preview({ preview, choice, put, saveLeft }: PreviewProps) {
  const strangers = preview.athletes.filter((one) => !one.known);
  return (
    <div className="mt-3 text-sm">
      <p className="font-semibold">
        {count(preview.sessions, "new session")}, {count(preview.sets, "set")}
        {preview.there > 0 && (
          <span className="font-normal text-ink-2">
            ; {preview.there} are already in the book and are skipped
          </span>
        )}
      </p>
      {strangers.length > 0 && !choice.take_on && (
        <p role="alert" className="mt-1 border-l-4 border-high pl-3">
          Nobody on the roster is called {strangers.map((one) => one.name).join(", ")}. Correct the
          names in the file, or{" "}
          <button type="button" className="trail-link" onClick={() => put({ take_on: true })}>
            take {strangers.length === 1 ? "them" : `all ${strangers.length}`} on
          </button>
          .
        </p>
      )}
      {strangers.length > 0 && choice.take_on && (
        <p role="status" className="mt-1 border-l-4 border-ink pl-3">
          {strangers.map((one) => one.name).join(", ")} will be added to the roster.
        </p>
      )}
      {preview.asks_dumbbells && !choice.dumbbells && (
        <p role="alert" className="mt-1 border-l-4 border-caution pl-3">
          The file does not say how many dumbbells: is a load that of{" "}
          <button type="button" className="trail-link" onClick={() => put({ dumbbells: "one" })}>
            one dumbbell
          </button>{" "}
          or{" "}
          <button type="button" className="trail-link" onClick={() => put({ dumbbells: "pair" })}>
            the pair
          </button>
          ?
        </p>
      )}
      {preview.doubts.length > 0 && (
        <Doubts
          doubts={preview.doubts}
          answer={(key, answer) => put({ doubts: { ...choice.doubts, [key]: answer } })}
        />
      )}
      {preview.notes.length > 0 && (
        <p className="mt-1 max-w-prose text-ink-2">{preview.notes.join("; ")}.</p>
      )}
      <Said choice={choice} put={put} />
      {preview.left > 0 && (
        <p className="mt-1">
          <button type="button" className="trail-link min-h-6" onClick={saveLeft}>
            Save the {count(preview.left, "row")} left out
          </button>{" "}
          <span className="text-ink-2">
            as a file, each with its reason, to correct and import later
          </span>
        </p>
      )}
      {preview.unknown.length > 0 && (
        <section aria-label="Movements to name" className="mt-2 border-l-4 border-caution pl-3">
          <p>
            These names are unknown. Choose the movement each one stands for, and the name is
            remembered. Or make it a new movement that counts like the one you type, or skip its
            rows.
          </p>
          {preview.unknown.map((one) => (
            <Unknown
              key={one.name}
              one={one}
              put={(name) => put({ movements: { ...choice.movements, [one.name]: name } })}
              make={(like) => put({ like: { ...choice.like, [one.name]: like } })}
              skip={() => put({ skip: [...(choice.skip ?? []), one.name] })}
            />
          ))}
        </section>
      )}
      {preview.problems.length > 0 && (
        <Problems
          problems={preview.problems}
          leaveOut={(kind) => put({ left_out: [...(choice.left_out ?? []), kind] })}
        />
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

interface ProblemsProps {
  problems: Schemas["SheetProblemKind"][];
  leaveOut: (kind: string) => void;
}

/** What cannot be read, by kind: once each, with how many rows have it. */
function Problems({ problems, leaveOut }: ProblemsProps) {
  return (
    <ul
      aria-label="Rows with problems"
      className="mt-2 max-h-48 overflow-auto border-l-4 border-high pl-3"
    >
      {problems.map(({ kind, rows, first }) => (
        <li key={kind}>
          {rows > 1 && <span className="font-semibold">{count(rows, "row")}, such as </span>}
          {rows > 1 ? "row" : "Row"} {first.row}
          {first.column && `, ${first.column}`}: {first.message}
          {/* What is wrong with the heads is wrong with all rows. */}
          {first.row > 1 && (
            <button
              type="button"
              className="trail-link ml-3 min-h-6"
              onClick={() => leaveOut(kind)}
            >
              leave {rows === 1 ? "it" : "them"} out
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

interface DoubtsProps {
  doubts: Schemas["SheetDoubtOut"][];
  answer: (key: string, answer: string) => void;
}

/** Rows that make little sense: those alike are asked about once. */
function Doubts({ doubts, answer }: DoubtsProps) {
  return (
    <section aria-label="Rows to look at" className="mt-2 border-l-4 border-caution pl-3">
      <p>These rows make little sense as they stand. Say what they mean; nothing is guessed.</p>
      <ul>
        {doubts.map((one) => (
          <li key={one.key} className="mt-1">
            <span className="font-semibold">{count(one.rows, "row")}</span> of {one.movements}, such
            as {one.at}, {one.example}: {one.why}
            <span className="flex flex-wrap gap-x-3">
              {one.answers.map((text) => (
                <button
                  key={text}
                  type="button"
                  className="trail-link min-h-6"
                  aria-label={`${one.movements}: ${text}`}
                  onClick={() => answer(one.key, text)}
                >
                  {text}
                </button>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A movement that is not known by this name: which it is. */
function Unknown({
  one,
  put,
  make,
  skip,
}: {
  one: Schemas["SheetPreview"]["unknown"][number];
  put: (name: string) => void;
  make: (like: string) => void;
  skip: () => void;
}) {
  const [typed, setTyped] = useState("");
  const name = typed.trim();
  return (
    <div className="flex flex-wrap items-baseline gap-x-3">
      <span className="w-56 truncate">
        {one.name} <span className="text-ink-2">{count(one.count, "row")}</span>
      </span>
      <input
        aria-label={`${one.name} is`}
        placeholder={one.near[0] ?? ""}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        className="field w-56 py-0"
        onKeyDown={(event) => {
          if (event.key === "Enter" && name) put(name);
        }}
      />
      <button type="button" className="key-button" disabled={!name} onClick={() => put(name)}>
        same as this
      </button>
      <button
        type="button"
        className="key-button"
        disabled={!name}
        aria-label={`Make ${one.name} a new movement`}
        onClick={() => make(name)}
      >
        new, counts like this
      </button>
      <button
        type="button"
        className="trail-link min-h-6 text-ink-2"
        aria-label={`Skip the rows of ${one.name}`}
        onClick={skip}
      >
        skip
      </button>
      {one.near.slice(0, 3).map((near) => (
        <button
          key={near}
          type="button"
          className="trail-link min-h-6"
          onClick={() => setTyped(near)}
        >
          {near}
        </button>
      ))}
    </div>
  );
}

interface SaidProps {
  choice: Choice;
  put: (part: Partial<Choice>) => void;
}

/** What was said of names so far, each to be taken back. */
function Said({ choice, put }: SaidProps) {
  const { movements = {}, like = {}, skip = [], doubts = {}, left_out = [] } = choice;
  const without = (of: Record<string, string>, name: string) =>
    Object.fromEntries(Object.entries(of).filter(([one]) => one !== name));
  const said: [string, string, () => void][] = [
    ...Object.entries(movements).map(([name, to]): [string, string, () => void] => [
      name,
      `is ${to}`,
      () => put({ movements: without(movements, name) }),
    ]),
    ...Object.entries(like).map(([name, base]): [string, string, () => void] => [
      name,
      `new, counts like ${base}`,
      () => put({ like: without(like, name) }),
    ]),
    ...skip.map((name): [string, string, () => void] => [
      name,
      "skipped",
      () => put({ skip: skip.filter((one) => one !== name) }),
    ]),
    ...left_out.map((kind): [string, string, () => void] => [
      kind,
      "left out",
      () => put({ left_out: left_out.filter((one) => one !== kind) }),
    ]),
    ...Object.entries(doubts).map(([key, answer]): [string, string, () => void] => [
      key.split(":")[0] ?? key,
      answer,
      () => put({ doubts: without(doubts, key) }),
    ]),
  ];
  if (said.length === 0) return null;
  return (
    <ul aria-label="Names matched" className="mt-2 border-l-4 border-rule pl-3">
      {said.map(([name, what, back]) => (
        <li key={name} className="flex items-baseline gap-3">
          <span className="w-56 truncate">{name}</span>
          <span>{what}</span>
          <button
            type="button"
            className="trail-link min-h-6 text-ink-2"
            aria-label={`Change the match for ${name}`}
            onClick={back}
          >
            change
          </button>
        </li>
      ))}
    </ul>
  );
}
