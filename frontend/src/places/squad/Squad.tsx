import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useMay } from "@/api/me";
import { useSquadWeek } from "@/api/squads";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { PrintButton } from "@/frame/PrintButton";
import { count } from "@/words";
import { Causes } from "./Causes";
import { PeopleTable } from "./PeopleTable";
import { Spread } from "./Spread";
import { SquadHead } from "./SquadHead";
import { squadPath, useSquadPlace } from "./useSquadPlace";

/** Monday's page: what a squad did, what several have in common, who stands apart. */
export function Squad() {
  const { squad, week, put } = useSquadPlace();
  const found = useSquadWeek(squad, week);
  const [marked, mark] = useState<number | null>(null);
  const may = useMay("plan");
  const go = useNavigate();
  const data = found.data;
  const draft = squadPath("/draft", squad, data?.to_plan ?? week);
  useKeys({ propose: () => data && may && void go(draft) });
  if (found.error) return <NotThere error={found.error} squad={squad} />;
  if (!data) return <p className="p-6 text-ink-2">Counting the week…</p>;
  const planned = data.basis === "planned";
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pb-8 print-open max-md:px-4">
      <SquadHead
        at={data}
        squad={squad}
        says={planned ? "as planned" : "what was done"}
        put={(part) => put(part)}
      >
        {may && (
          <Link to={draft} className="ink-button" title={`Key ${KEYS.propose.key}`}>
            Change shared sessions
          </Link>
        )}
        <PrintButton className="key-button" shown={data.people.map((one) => one.row.id)} />
        <button type="button" className="key-button" onClick={() => window.print()}>
          Print this page
        </button>
      </SquadHead>
      {data.common === null && (
        <p role="status" className="pb-2 text-sm text-ink-2">
          Counting the week: {data.waiting.length > 0 ? data.people.length : data.counted} of{" "}
          {count(data.people.length + data.waiting.length, "athlete")} so far.
        </p>
      )}
      {data.common && <Causes data={data} common={data.common} draft={may ? draft : null} />}
      <Spread data={data} marked={marked} mark={mark} />
      <PeopleTable data={data} mark={mark} />
    </main>
  );
}

/** A squad that nobody is in any more is no dead end. */
function NotThere({ error, squad }: { error: unknown; squad: string }) {
  return (
    <>
      <Failure error={error} />
      {squad && (
        <Link to={squadPath("", "", "")} className="key-button mx-6 w-fit">
          Show everybody
        </Link>
      )}
    </>
  );
}
