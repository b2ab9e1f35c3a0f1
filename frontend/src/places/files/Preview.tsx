import type { Schemas } from "@/api/client";
import { date, number } from "@/words";

type Choice = Schemas["SheetChoice"];

interface PreviewProps {
  preview: Schemas["SheetPreview"];
  choice: Choice;
  put: (part: Partial<Choice>) => void;
}

/** What would come in of a file, and what stands in the way. */
export function Preview({ preview, choice, put }: PreviewProps) {
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
            <Unknown
              key={one.name}
              one={one}
              put={(name) => put({ movements: { ...choice.movements, [one.name]: name } })}
            />
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

/** A movement that is not known by this name: which it is. */
function Unknown({
  one,
  put,
}: {
  one: Schemas["SheetPreview"]["unknown"][number];
  put: (name: string) => void;
}) {
  return (
    <label className="flex items-baseline gap-3">
      <span className="w-56 truncate">
        {one.name} <span className="text-ink-2">{one.count} rows</span>
      </span>
      <input
        aria-label={`${one.name} is`}
        placeholder={one.near[0] ?? ""}
        className="field w-64 py-0"
        onBlur={(event) => {
          if (event.target.value.trim()) put(event.target.value.trim());
        }}
      />
      {one.near.slice(0, 3).map((near) => (
        <button key={near} type="button" className="trail-link min-h-6" onClick={() => put(near)}>
          {near}
        </button>
      ))}
    </label>
  );
}
