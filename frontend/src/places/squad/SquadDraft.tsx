import { Link } from "react-router";
import { useSquadWeek } from "@/api/squads";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { count } from "@/words";
import { Everybody } from "./Everybody";
import { SharedSession } from "./SharedSession";
import { SquadHead } from "./SquadHead";
import { SquadProposal } from "./SquadProposal";
import { squadPath, useSquadPlace } from "./useSquadPlace";
import { type SquadDesk, useSquadDesk } from "./useSquadDesk";

/** The week of a squad that is planned next, where the address names none. */
export function SquadDraft() {
  const { squad, week } = useSquadPlace();
  const page = useSquadWeek(squad, week);
  const at = week || page.data?.to_plan;
  if (page.error) return <Failure error={page.error} />;
  if (!at) return <p className="p-6 text-ink-2">Loading the plans…</p>;
  return <Draft key={`${squad}/${at}`} squad={squad} week={at} />;
}

/** The sessions that several share, changed once for all of them, and what that does to each. */
function Draft({ squad, week }: { squad: string; week: string }) {
  const { put } = useSquadPlace();
  const desk = useSquadDesk(squad, week);
  useKeys({ undo: () => desk.canUndo && desk.undo() });
  const { data, error } = desk.draft;
  if (error && !data)
    return (
      <main className="p-6">
        <p role="alert">{error.message}</p>
        <p className="flex gap-3 pt-3">
          {desk.turns.length > 0 && (
            <button type="button" className="key-button" onClick={desk.discard}>
              Discard this draft
            </button>
          )}
          <Link to={squadPath("", squad, "")} className="key-button">
            Back to the squad
          </Link>
        </p>
      </main>
    );
  if (!data) return <p className="p-6 text-ink-2">Loading the plans…</p>;
  const changed = data.people.filter((one) => one.changed).length;
  return (
    <div className="beside grid-cols-[minmax(0,1fr)_27rem]">
      <main className="min-h-0 overflow-auto bg-sheet px-6 pb-8 max-md:px-4">
        <SquadHead at={data} squad={squad} says="one change for all" put={(part) => put(part)}>
          <Link to={squadPath("", squad, week)} className="trail-link text-sm">
            Back to the squad
          </Link>
          <button
            type="button"
            className="ink-button"
            disabled={changed === 0 || desk.busy || desk.draft.isPlaceholderData}
            onClick={desk.publish}
          >
            {changed === 0 ? "Nothing to publish" : `Publish for ${count(changed, "athlete")}`}
          </button>
        </SquadHead>
        <Said desk={desk} />
        {data.shared.length === 0 && (
          <p className="py-4 text-ink-2">
            No session of this week is shared: at least three athletes need one with the same title
            and movements. Change each athlete&rsquo;s week on their Dial.
          </p>
        )}
        {data.shared.map((session) => (
          <SharedSession
            key={session.session}
            session={session}
            of={data.people.length}
            desk={desk}
          />
        ))}
      </main>
      <aside className="min-h-0 overflow-auto border-l border-rule bg-paper px-4 pb-6">
        <SquadProposal desk={desk} names={new Map(data.people.map((one) => [one.id, one.name]))} />
        <Everybody desk={desk} data={data} />
      </aside>
    </div>
  );
}

/** What was just done, and what went wrong. */
function Said({ desk }: { desk: SquadDesk }) {
  const { published, back } = desk;
  const problem = desk.error ?? desk.draft.error ?? back.error;
  return (
    <>
      {problem && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3">
          {problem.message}
        </p>
      )}
      {published && (
        <p role="status" className="mb-2 border-l-4 border-ink pl-3">
          {published.undone
            ? "Undone: the plans are as they were. "
            : `Published for ${count(published.people, "athlete")}. `}
          <button type="button" className="trail-link" disabled={back.busy} onClick={desk.swap}>
            {published.undone ? "Publish it again" : "Undo for all"}
          </button>
        </p>
      )}
      {back.stays.map((one) => (
        <p key={one} role="alert" className="mb-2 border-l-4 border-caution pl-3 text-sm">
          {one}
        </p>
      ))}
      {desk.turns.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-4 pb-2 text-sm">
          <span>{count(desk.turns.length, "change")} in this draft, not published.</span>
          <button
            type="button"
            className="trail-link"
            title={`Key ${KEYS.undo.key}`}
            disabled={!desk.canUndo}
            onClick={desk.undo}
          >
            Undo
          </button>
          <button type="button" className="trail-link" onClick={desk.discard}>
            Discard the draft
          </button>
        </p>
      )}
    </>
  );
}
