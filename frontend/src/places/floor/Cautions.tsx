import { CareList } from "@/frame/CareLine";
import { date, number } from "@/words";
import { onTheClock } from "./minutes";
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
const minutes = (seconds: number) => number(seconds / 60, 0);

/** The session on the clock, if it is begun now: its parts, its end, and whether it fits. */
function Clock({ run, now }: { run: Run; now: number }) {
  const parts = onTheClock(run.sets);
  const takes = parts.at(-1)?.to ?? 0;
  if (takes < 60) return null;
  const until = new Date(now + takes * 1000).toTimeString().slice(0, 5);
  const over = run.most_minutes === null ? 0 : takes / 60 - run.most_minutes;
  return (
    <div className="mt-1 max-w-prose text-lg text-ink-2">
      <p>
        About {minutes(takes)} min, until {until} if it begins now
        {parts.length > 1 &&
          `: ${parts.map((part) => `${part.name} until minute ${minutes(part.to)}`).join(", ")}`}
        .
      </p>
      {over >= 1 && (
        <p className="text-caution">
          {number(over, 0)} min more than a session may take.{" "}
          {run.to_leave_out.length > 0 && `To fit, leave out ${LIST.format(run.to_leave_out)}.`}
        </p>
      )}
    </div>
  );
}
