import type { Schemas } from "@/api/client";
import { date } from "@/words";

type Note = Schemas["CareNote"];

/** Who said what of it, and what is usually said. */
const whole = (one: Note): string =>
  [
    [one.by, one.since && date(one.since)].filter(Boolean).join(", "),
    one.word && `“${one.word}”`,
    one.usual,
  ]
    .filter(Boolean)
    .join(". ");

/** What to mind about an athlete, a word each; the whole of it on hover and for a screen reader. */
export function CareLine({ notes }: { notes: Note[] }) {
  return notes.map((one) => (
    <span
      key={`${one.kind}${one.since}`}
      title={whole(one)}
      className="mr-3 border-l-4 border-caution pl-1.5 text-ink not-italic"
    >
      {one.kind}
      <span className="sr-only">: {whole(one)}</span>
    </span>
  ));
}

/** The same at length, where one reads before one begins. */
export function CareList({ notes }: { notes: Note[] }) {
  return (
    <ul>
      {notes.map((one) => (
        <li key={`${one.kind}${one.since}`} className="mt-1.5">
          <span className="block text-lg first-letter:uppercase">{one.kind}</span>
          <span className="block text-sm text-ink-2">{whole(one)}</span>
        </li>
      ))}
    </ul>
  );
}
