import { CareList } from "@/frame/CareLine";
import { date, number } from "@/words";
import { type Run, leader } from "./run";

interface Props {
  runs: Run[];
  caution: string;
  /** The time, in ms since 1970. */
  now: number;
  begin: () => void;
}

/** What is to be read before a run begins: restrictions, and the cautions of training. */
export function Cautions({ runs, caution, now, begin }: Props) {
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-8 pt-6 max-md:px-4">
      <h1 className="text-2xl font-semibold">{runs[0]?.title || "Session"}</h1>
      <p className="mt-1 text-lg">
        {runs.map((one) => one.name).join(", ")}: {leader(runs).sets.length} sets.
      </p>
      {leader(runs).why && (
        <p className="mt-1 max-w-prose text-lg text-ink-2 italic">Why: {leader(runs).why}</p>
      )}
      <Clock run={leader(runs)} now={now} />
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

const LIST = new Intl.ListFormat("en-GB");

/** The session on the clock, if it is begun now: its parts, its end, and whether it fits. */
function Clock({ run, now }: { run: Run; now: number }) {
  // A run that an older version keeps has none.
  const { clock } = run as Partial<Run>;
  const takes = clock?.parts.at(-1)?.until_min ?? 0;
  if (!clock || takes < 1) return null;
  const until = new Date(now + takes * 60_000).toTimeString().slice(0, 5);
  const parts = clock.parts.map((part) => `${part.name} until minute ${number(part.until_min, 0)}`);
  const without = LIST.format(clock.leave_out);
  return (
    <div className="mt-1 max-w-prose text-lg text-ink-2">
      <p>
        About {number(takes, 0)} min, until {until} if it begins now
        {parts.length > 1 && `: ${parts.join(", ")}`}.
      </p>
      {clock.over_min >= 1 && (
        <p className="text-caution">
          {number(clock.over_min, 0)} min longer than a session may be.{" "}
          {clock.fits ? `To fit, leave out ${without}.` : "Leaving out accessories is not enough."}
        </p>
      )}
    </div>
  );
}
