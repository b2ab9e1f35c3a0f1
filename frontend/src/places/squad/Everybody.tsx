import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { weekPath } from "@/frame/places";
import { LevelMark } from "@/marks/LevelMark";
import type { SquadDesk } from "./useSquadDesk";

type Levels = Schemas["LevelsOut"];

interface Props {
  desk: SquadDesk;
  data: Schemas["SquadDraftOut"];
}

/** What the draft does to everybody's week, each audited: what clears and what comes. */
export function Everybody({ desk, data }: Props) {
  const drafted = data.people.filter((one) => one.changed && one.drafted).map((one) => one.name);
  return (
    <section aria-labelledby="everybody" className="py-3">
      <h2 id="everybody" className="font-semibold">
        Everybody&rsquo;s week
      </h2>
      <p className="text-sm" role="status">
        <Arrow before={data.before} after={data.after} />
        {desk.draft.isFetching && <span className="text-ink-2 italic"> calculating…</span>}
      </p>
      <ul>
        {data.people.map((one) => (
          <Person key={one.id} one={one} desk={desk} week={data.week} />
        ))}
      </ul>
      {data.without.length > 0 && (
        <p className="pt-1 text-sm text-ink-2">No plan to begin with: {data.without.join(", ")}.</p>
      )}
      {drafted.length > 0 && (
        <p className="pt-2 text-sm text-caution">
          Publishing replaces the draft of {drafted.join(", ")}; undoing brings it back.
        </p>
      )}
      <p className="pt-2 text-xs text-ink-2">
        Only these plans change, all at once, and can be undone all at once. Days that are logged
        stay. What a physiotherapist or doctor has said of somebody goes before any proposal.
      </p>
    </section>
  );
}

interface PersonProps {
  one: Schemas["PersonWeekOut"];
  desk: SquadDesk;
  week: string;
}

function Person({ one, desk, week }: PersonProps) {
  const own = desk.turns.filter((turn) => turn.athlete === one.id);
  return (
    <li className="border-b border-hair py-1 last:border-b-0">
      <div className="flex items-baseline gap-3">
        <Link
          to={weekPath(one.id, week, "dial")}
          className={`min-w-0 flex-1 truncate hover:underline ${one.changed ? "font-semibold" : ""}`}
        >
          {one.name}
        </Link>
        <Arrow before={one.before} after={one.after} />
      </div>
      {own.map((turn) => (
        <p
          key={`${turn.session}/${turn.line}/${turn.movement}`}
          className="flex items-baseline gap-2 text-sm"
        >
          <span className="min-w-0 flex-1" title={turn.reason}>
            exception: {turn.what}
          </span>
          <button type="button" className="trail-link min-h-6" onClick={() => desk.drop(turn)}>
            leave out
          </button>
        </p>
      ))}
      {one.changed && one.cleared.length > 0 && (
        <p className="text-sm text-ink-2">
          clears {one.cleared.map((found) => found.words).join(", ")}
        </p>
      )}
      {one.appeared.length > 0 && (
        <p className="text-sm text-caution">
          brings {one.appeared.map((found) => `${found.words} (${found.level})`).join(", ")}
        </p>
      )}
    </li>
  );
}

/** Findings before and after, by level: each in a column of its own. */
function Arrow({ before, after }: { before: Levels; after: Levels }) {
  return (
    <span className="inline-grid shrink-0 grid-cols-2 gap-x-3 text-sm">
      {(["high", "caution"] as const).map((level) => (
        <span key={level} className="flex w-20 items-center justify-end gap-1" title={level}>
          {before[level] + after[level] > 0 && (
            <>
              <LevelMark level={level} />
              {before[level]}
              {after[level] !== before[level] && (
                <span className="font-semibold">→ {after[level]}</span>
              )}
            </>
          )}
        </span>
      ))}
    </span>
  );
}
