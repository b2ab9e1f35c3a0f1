import { useChange } from "@/api/changes";
import { decisions, useDecisions } from "@/api/decisions";
import { date } from "@/words";

/** What has been decided about an athlete for longer than a week, to withdraw. */
export function Decisions({ athlete }: { athlete: number }) {
  const found = useDecisions(athlete);
  const end = useChange((id: number) => decisions.end(athlete, id));
  const restore = useChange((id: number) => decisions.restore(athlete, id));
  const all = found.data?.decisions ?? [];
  const error = found.error ?? end.error ?? restore.error;
  return (
    <section aria-labelledby="decisions" className="mb-7 max-w-3xl">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule pb-1">
        <h2 id="decisions" className="text-xl font-semibold">
          Decisions
        </h2>
        <p className="min-w-0 flex-1 text-sm text-ink-2">
          What is intended is not told again; what is watched is looked at on its day.
        </p>
      </div>
      {found.data && all.length === 0 && (
        <p className="py-2 text-sm text-ink-2">
          None. They are made on the week sheet, beside what stands there.
        </p>
      )}
      <ul>
        {all.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-hair py-1.5">
            <span className={`min-w-0 flex-1 ${one.holds ? "" : "text-ink-2"}`}>
              <span className={one.decision.ended_on ? "line-through" : "font-semibold"}>
                {one.words}
              </span>
              <span className="block text-sm text-ink-2">
                {one.decision.reason && `“${one.decision.reason}”, `}
                from {date(one.decision.since)}
                {one.decision.ended_on && ` · withdrawn ${date(one.decision.ended_on)}`}
              </span>
            </span>
            <button
              type="button"
              className="trail-link min-h-6 text-sm"
              disabled={end.isPending || restore.isPending}
              onClick={() => (one.decision.ended_on ? restore : end).mutate(one.id)}
            >
              {one.decision.ended_on ? "Reinstate" : "Withdraw it"}
            </button>
          </li>
        ))}
      </ul>
      {error && (
        <p role="alert" className="mt-2 text-sm text-high">
          {error.message}
        </p>
      )}
    </section>
  );
}
