import { KEYS, useKeys } from "@/frame/keys";
import { count } from "@/words";
import { type Turn, isTaken } from "./turns";
import type { SquadDesk } from "./useSquadDesk";

interface Props {
  desk: SquadDesk;
  names: Map<number, string>;
}

/** What to change once for all, and for whom otherwise: looked for, stopped, taken one by one. */
export function SquadProposal({ desk, names }: Props) {
  const { proposal: job } = desk;
  // Of other plans than these it would change something else.
  const isOld = job?.proposal != null && job.proposal.state !== desk.draft.data?.state;
  const found = isOld ? null : (job?.proposal ?? null);
  const running = desk.isAsking || (job !== undefined && !job.finished);
  const ask = () => !running && desk.ask();
  const open = found?.turns.filter((one) => !isTaken(desk.turns, one)) ?? [];
  const takeAll = () => open.length > 0 && desk.takeAll(open);
  useKeys({ propose: ask, takeAll });
  const problem =
    job?.problem ??
    (desk.lost
      ? "This proposal is no longer at hand."
      : isOld
        ? "The plans have changed since this proposal."
        : null);
  return (
    <section aria-labelledby="proposal" className="border-b border-rule py-3">
      <div className="flex items-baseline gap-3">
        <h2 id="proposal" className="font-semibold">
          What to change
        </h2>
        {!running && (
          <button
            type="button"
            className="key-button ml-auto"
            title={`Key ${KEYS.propose.key}`}
            onClick={ask}
          >
            {found ? "Propose again" : "Propose"}
          </button>
        )}
      </div>
      {running && <Looking done={job?.done ?? 0} of={job?.of ?? 10} stop={desk.stop} />}
      {problem && !running && (
        <p role="alert" className="text-sm text-high">
          {problem} Ask again.
        </p>
      )}
      {found && !running && (
        <>
          <p className="text-sm text-ink-2">
            {found.turns.length === 0
              ? "Nothing to change: no change is worth what it costs. "
              : found.optimal
                ? "Nothing better is possible. "
                : "The best that was found in time. "}
            {found.why}
          </p>
          <List
            title="For all"
            turns={open.filter((one) => one.athlete === null)}
            desk={desk}
            names={names}
          />
          <List
            title="Exceptions"
            turns={open.filter((one) => one.athlete !== null)}
            desk={desk}
            names={names}
          />
          {open.length < found.turns.length && (
            <p className="pt-2 text-sm" role="status">
              {open.length === 0 ? "All" : found.turns.length - open.length} taken into the draft.
            </p>
          )}
          {open.length > 1 && (
            <button
              type="button"
              className="ink-button mt-2"
              title={`Key ${KEYS.takeAll.key}`}
              onClick={takeAll}
            >
              Take all {open.length}
            </button>
          )}
        </>
      )}
    </section>
  );
}

function Looking({ done, of, stop }: { done: number; of: number; stop: () => void }) {
  return (
    <div className="py-1 text-sm">
      <p role="status">
        Looking for the one change that is best for all: {done} of {count(of, "second")} at most.
      </p>
      <div className="flex items-center gap-3">
        <progress value={done} max={of} aria-label="Time" className="h-2 flex-1 accent-ink" />
        <button type="button" className="key-button" onClick={stop}>
          Use the best so far
        </button>
      </div>
    </div>
  );
}

interface ListProps {
  title: string;
  turns: Turn[];
  desk: SquadDesk;
  names: Map<number, string>;
}

function List({ title, turns, desk, names }: ListProps) {
  if (turns.length === 0) return null;
  return (
    <>
      <h3 className="pt-2 text-sm text-ink-2 italic">{title}</h3>
      <ul>
        {turns.map((one) => (
          <li
            key={`${one.athlete}/${one.session}/${one.line}/${one.movement}`}
            className="flex items-baseline gap-2 border-b border-hair py-1"
          >
            <span className="min-w-0 flex-1">
              {one.athlete !== null && (
                <span className="text-ink-2">{names.get(one.athlete)}: </span>
              )}
              <span className="font-semibold">{one.what}</span>
              {one.reason && <span className="block text-sm text-ink-2">{one.reason}</span>}
            </span>
            <button
              type="button"
              className="key-button"
              aria-label={`Take: ${one.what}`}
              onClick={() => desk.put(one)}
            >
              Take
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
