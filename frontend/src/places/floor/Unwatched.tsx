import { count } from "@/words";
import { type Run, type State, leader, wanted } from "./run";
import { type Unseen, notDone, seenAfterAll } from "./unseen";

interface Props {
  runs: Run[];
  state: State;
  unseen: Unseen;
  change: (how: (state: State) => State) => void;
}

/** Time passed that nobody saw: what would have been done in it is asked about, never taken as done. */
export function Unwatched({ runs, state, unseen, change }: Props) {
  const names = unseen.ended.map((step) => wanted(leader(runs), state, step)?.movement ?? "");
  const minutes = Math.round((unseen.to - unseen.from) / 60_000);
  return (
    <section aria-labelledby="unwatched" className="flex flex-1 flex-col">
      <h1 id="unwatched" className="mt-6 text-[2.25rem] leading-tight font-semibold">
        Were these sets done?
      </h1>
      <p className="mt-3 text-xl">
        {minutes > 0 ? `For ${count(minutes, "minute")} ` : "For a while "}
        nobody was at this clock: the screen was off, another page was open, or the device&rsquo;s
        clock was changed.{" "}
        {names.length > 0
          ? `By the clock ${count(names.length, "set")} ended in that time:`
          : "By the clock the next set began in that time."}
      </p>
      <ul className="mt-2 text-2xl">
        {names.map((name, at) => (
          // The same movement may come twice: its place is its name.
          <li key={at}>{name}</li>
        ))}
      </ul>
      <div className="mt-auto grid gap-3 pt-6">
        <button
          type="button"
          className="ink-button h-20 text-2xl font-semibold"
          onClick={() => change((all) => notDone(all, Date.now()))}
        >
          No: continue from where it was
        </button>
        <button
          type="button"
          className="key-button h-16 text-xl"
          onClick={() => change((all) => seenAfterAll(all, runs, Date.now()))}
        >
          Yes, as planned
        </button>
      </div>
    </section>
  );
}
