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
  const asked = useAsked(preview.unknown);
  const named = saidOfNames(choice, put);
  const before = named.filter(({ name }) => !asked.some((row) => row.name === name));
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
      <Said said={[...before, ...saidOfRows(choice, put)]} />
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
      {asked.length > 0 && <Names asked={asked} said={named} choice={choice} put={put} />}
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

type Name = Schemas["SheetPreview"]["unknown"][number];

/**
 * The names that were asked about since the file was looked at, answered or not: a row stays where
 * it is when it is answered, so that the next one does not slip away from under the finger.
 */
function useAsked(unknown: Name[]): Name[] {
  const [asked, setAsked] = useState(unknown);
  const fresh = unknown.filter(({ name }) => !asked.some((row) => row.name === name));
  const all = fresh.length ? [...asked, ...fresh] : asked;
  if (fresh.length) setAsked(all);
  return all;
}

interface NamesProps {
  asked: Name[];
  said: Answer[];
  choice: Choice;
  put: (part: Partial<Choice>) => void;
}

/** The names that are not known, one below the other, each with its answer or the ways to give one. */
function Names({ asked, said, choice, put }: NamesProps) {
  const answers = new Map(said.map((answer) => [answer.name, answer]));
  return (
    <section aria-label="Movements to name" className="mt-2 border-l-4 border-caution pl-3">
      <p>
        These names are unknown. Choose the movement each one stands for, and the name is
        remembered. Or make it a new movement that counts like the one you type, or skip its rows.
      </p>
      <ul>
        {asked.map((row) => {
          const answer = answers.get(row.name);
          return answer ? (
            <Answered key={row.name} answer={answer} />
          ) : (
            <Unknown
              key={row.name}
              row={row}
              put={(name) => put({ movements: { ...choice.movements, [row.name]: name } })}
              make={(like) => put({ like: { ...choice.like, [row.name]: like } })}
              skip={() => put({ skip: [...(choice.skip ?? []), row.name] })}
            />
          );
        })}
      </ul>
    </section>
  );
}

interface UnknownProps {
  row: Name;
  put: (name: string) => void;
  make: (like: string) => void;
  skip: () => void;
}

/** A movement that is not known by this name: which it is. */
function Unknown({ row, put, make, skip }: UnknownProps) {
  const [typed, setTyped] = useState("");
  const name = typed.trim();
  return (
    <li className="flex min-h-8 flex-wrap items-baseline gap-x-3">
      <span className="w-56 truncate">
        {row.name} <span className="text-ink-2">{count(row.count, "row")}</span>
      </span>
      <input
        aria-label={`${row.name} is`}
        placeholder={row.near[0] ?? ""}
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
        aria-label={`Make ${row.name} a new movement`}
        onClick={() => make(name)}
      >
        new, counts like this
      </button>
      <button
        type="button"
        className="trail-link min-h-6 text-ink-2"
        aria-label={`Skip the rows of ${row.name}`}
        onClick={skip}
      >
        skip
      </button>
      {row.near.slice(0, 3).map((near) => (
        <button
          key={near}
          type="button"
          className="trail-link min-h-6"
          onClick={() => setTyped(near)}
        >
          {near}
        </button>
      ))}
    </li>
  );
}

interface Answer {
  name: string;
  what: string;
  takeBack: () => void;
}

/** What was said of names so far, each to be taken back. */
function saidOfNames(choice: Choice, put: (part: Partial<Choice>) => void): Answer[] {
  const { movements = {}, like = {}, skip = [] } = choice;
  return [
    ...Object.entries(movements).map(([name, to]) => ({
      name,
      what: `is ${to}`,
      takeBack: () => put({ movements: without(movements, name) }),
    })),
    ...Object.entries(like).map(([name, base]) => ({
      name,
      what: `new, counts like ${base}`,
      takeBack: () => put({ like: without(like, name) }),
    })),
    ...skip.map((name) => ({
      name,
      what: "skipped",
      takeBack: () => put({ skip: skip.filter((other) => other !== name) }),
    })),
  ];
}

/** What was said of rows with a problem or a doubt. */
function saidOfRows(choice: Choice, put: (part: Partial<Choice>) => void): Answer[] {
  const { doubts = {}, left_out = [] } = choice;
  return [
    ...left_out.map((kind) => ({
      name: kind,
      what: "left out",
      takeBack: () => put({ left_out: left_out.filter((other) => other !== kind) }),
    })),
    ...Object.entries(doubts).map(([key, answer]) => ({
      name: key.split(":")[0] ?? key,
      what: answer,
      takeBack: () => put({ doubts: without(doubts, key) }),
    })),
  ];
}

const without = (of: Record<string, string>, name: string) =>
  Object.fromEntries(Object.entries(of).filter(([key]) => key !== name));

/** What was said in an earlier look, or not of a name. */
function Said({ said }: { said: Answer[] }) {
  if (said.length === 0) return null;
  return (
    <ul aria-label="Names matched" className="mt-2 border-l-4 border-rule pl-3">
      {said.map((answer) => (
        <Answered key={`${answer.name} ${answer.what}`} answer={answer} />
      ))}
    </ul>
  );
}

function Answered({ answer }: { answer: Answer }) {
  return (
    <li className="flex min-h-8 items-baseline gap-3">
      <span className="w-56 truncate">{answer.name}</span>
      <span>{answer.what}</span>
      <button
        type="button"
        className="trail-link min-h-6 text-ink-2"
        aria-label={`Change the match for ${answer.name}`}
        onClick={answer.takeBack}
      >
        change
      </button>
    </li>
  );
}
