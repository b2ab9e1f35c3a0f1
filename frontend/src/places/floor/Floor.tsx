import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { useFloorDay } from "@/api/floor";
import { Failure } from "@/frame/Failure";
import { SquadSelect } from "@/frame/SquadSelect";
import { useAddress } from "@/frame/useAddress";
import { day, dayAfter } from "@/words";
import { BoxState } from "./BoxState";
import { useAtHand } from "./useAtHand";

/** What is planned for a day: one session to run, or several by one clock. */
export function Floor() {
  const { params, put } = useAddress();
  const other = params.get("day") ?? undefined;
  const found = useFloorDay(other);
  const [chosen, setChosen] = useState<number[]>([]);
  const squad = params.get("squad") ?? "";
  const atHand = useAtHand(other ? undefined : found.data?.sessions);
  const go = useNavigate();
  if (found.error && !found.data) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Loading today&rsquo;s sessions…</p>;
  const sessions = found.data.sessions.filter((one) => !squad || one.squad === squad);
  const run = (plans: number[]) => go(`/floor/run?plans=${plans.join(",")}`);
  const titles = [...new Set(sessions.map((one) => one.title))];
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-4 pb-10 max-md:px-4">
      <div className="flex flex-wrap items-baseline gap-4 pb-2">
        <h1 className="text-xl font-semibold">
          Floor <span className="font-normal text-ink-2">{day(found.data.day)}</span>
        </h1>
        <Days
          day={found.data.day}
          isOther={other !== undefined}
          go={(next) => {
            setChosen([]);
            put({ day: next ?? "" });
          }}
        />
        <SquadSelect
          people={found.data.sessions}
          value={squad}
          put={(next) => {
            put({ squad: next });
            setChosen([]);
          }}
          className="min-h-10"
        />
        <BoxState />
        {atHand > 0 && (
          <span className="text-sm text-ink-2">
            {atHand === found.data.sessions.length
              ? "all sessions"
              : `${atHand} of ${found.data.sessions.length} sessions`}{" "}
            saved on this device in case the connection drops
          </span>
        )}
        {chosen.length > 0 && (
          <button type="button" className="ink-button ml-auto" onClick={() => run(chosen)}>
            {chosen.length === 1 ? "Run it" : `Run ${chosen.length} by one clock`}
          </button>
        )}
      </div>
      {sessions.length === 0 && (
        <p className="max-w-prose py-4">
          Nothing is planned for {other ? "this day" : "today"}. Sessions written for it appear
          here, ready to run.
        </p>
      )}
      <div className="gap-12 lg:columns-2">
        {titles.map((title) => (
          <section key={title} className="mb-4 break-inside-avoid">
            <h2 className="flex items-baseline border-b border-rule font-semibold">
              {title || "Session"}
              {sessions.filter((one) => one.title === title).length > 1 && (
                <button
                  type="button"
                  className="trail-link ml-auto min-h-6 text-sm font-normal"
                  onClick={() =>
                    setChosen(sessions.filter((one) => one.title === title).map((one) => one.plan))
                  }
                >
                  all of these
                </button>
              )}
            </h2>
            <ul>
              {sessions
                .filter((one) => one.title === title)
                .map((one) => (
                  <Row
                    key={one.plan}
                    one={one}
                    on={chosen.includes(one.plan)}
                    put={(on) =>
                      setChosen((now) =>
                        on ? [...now, one.plan] : now.filter((other) => other !== one.plan),
                      )
                    }
                    run={() => run([one.plan])}
                  />
                ))}
            </ul>
          </section>
        ))}
      </div>
    </main>
  );
}

interface DaysProps {
  day: string;
  isOther: boolean;
  go: (day: string | null) => void;
}

/** Another day's sessions: what was missed, or is done ahead. */
function Days({ day, isOther, go }: DaysProps) {
  return (
    <span className="flex items-center gap-2 text-sm">
      <button
        type="button"
        className="min-h-10 min-w-10 hover:bg-band"
        aria-label="Previous day"
        onClick={() => go(dayAfter(day, -1))}
      >
        ◂
      </button>
      <button
        type="button"
        className="min-h-10 min-w-10 hover:bg-band"
        aria-label="Next day"
        onClick={() => go(dayAfter(day, 1))}
      >
        ▸
      </button>
      {isOther && (
        <button type="button" className="trail-link min-h-10" onClick={() => go(null)}>
          today
        </button>
      )}
    </span>
  );
}

function Row({
  one,
  on,
  put,
  run,
}: {
  one: Schemas["FloorSession"];
  on: boolean;
  put: (on: boolean) => void;
  run: () => void;
}) {
  return (
    <li className="flex items-center gap-3 border-b border-hair py-1">
      <label className="flex min-h-10 min-w-0 flex-1 items-center gap-3 text-lg">
        <input
          type="checkbox"
          checked={on}
          onChange={(event) => put(event.target.checked)}
          className="size-5 shrink-0 accent-ink"
        />
        <span className="flex min-w-0 flex-wrap items-baseline gap-x-3 leading-tight">
          {one.name}
          <span className="text-sm text-ink-2">
            {one.sets} sets, about {Math.round(one.minutes)} min{one.done ? ", logged" : ""}
          </span>
        </span>
      </label>
      <button
        type="button"
        className="key-button"
        aria-label={`${one.done ? "Open" : "Run"} ${one.title} of ${one.name}`}
        onClick={run}
      >
        {one.done ? "Open" : "Run"}
      </button>
    </li>
  );
}
