import { CareList } from "@/frame/CareLine";
import { date } from "@/words";
import { type Run, leader } from "./run";

interface Props {
  runs: Run[];
  caution: string;
  begin: () => void;
}

/** What is to be read before a run begins: restrictions, and the cautions of training. */
export function Cautions({ runs, caution, begin }: Props) {
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-8 pt-6 max-md:px-4">
      <h1 className="text-2xl font-semibold">{runs[0]?.title || "Session"}</h1>
      <p className="mt-1 text-lg">
        {runs.map((one) => one.name).join(", ")}: {leader(runs).sets.length} sets.
      </p>
      {runs
        .filter((one) => one.restrictions.length > 0)
        .map((one) => (
          <section
            key={one.athlete}
            aria-label={`Restrictions of ${one.name}`}
            className="mt-4 max-w-prose border-l-4 border-high pl-4"
          >
            <p className="font-semibold">{one.name} is restricted</p>
            <ul>
              {one.restrictions.map((note) => (
                <li key={note.words} className="mt-1.5">
                  <span className="block text-lg first-letter:uppercase">{note.words}</span>
                  <span className="block text-sm text-ink-2">
                    {note.by}, {date(note.since)}
                    {note.word && `: “${note.word}”`}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ))}
      {runs
        .filter((one) => one.care.length > 0)
        .map((one) => (
          <section
            key={one.athlete}
            aria-label={`Care for ${one.name}`}
            className="mt-4 max-w-prose border-l-4 border-caution pl-4"
          >
            <p className="font-semibold">{one.name} asks for care</p>
            <CareList notes={one.care} />
          </section>
        ))}
      <p className="mt-4 max-w-prose border-l-4 border-caution pl-4">{caution}</p>
      <button type="button" className="ink-button mt-6 h-16 px-10 text-xl" onClick={begin}>
        Begin
      </button>
    </main>
  );
}
