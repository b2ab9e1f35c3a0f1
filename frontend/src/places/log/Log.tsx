import { useState } from "react";
import { useSearchParams } from "react-router";
import { useLog } from "@/api/log";
import { useMovementNames } from "@/api/write";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { day } from "@/words";
import { SessionLog } from "./SessionLog";
import { WrittenLog } from "./WrittenLog";
import { type LogSession, keyOf, restAsPlanned, saidOtherwise, sessionOf } from "./log";
import { useEdits } from "./useEdits";

/** The week's sessions, planned beside done; only what differed is typed. */
export function Log() {
  const place = useWeekPlace();
  const found = useLog(place);
  const names = useMovementNames(place);
  const [params, setParams] = useSearchParams();
  const { edit, takeOut, undo, before, busy, error } = useEdits(place);
  const all = found.data?.sessions ?? [];
  const writing = params.get("session") === "new";
  const current = writing
    ? undefined
    : (all.find(
        (one) =>
          keyOf(one) === params.get("session") || one.log?.client_id === params.get("session"),
      ) ?? all[0]);
  const open = (key: string) => setParams({ session: key }, { replace: true });
  const [left, setLeft] = useState<{ key: string; sets: number } | null>(null);
  const whole = (one: LogSession) =>
    edit(keyOf(one), (now) => {
      // What was said of a set stays as it was said.
      setLeft({ key: keyOf(now), sets: saidOtherwise(now) });
      return now.plan && { ...sessionOf(now), sets: restAsPlanned(now) };
    });
  useKeys({
    asPlanned: () => {
      if (!current?.plan || current.log) return;
      whole(current);
      // On to the next one that is due.
      const next = all
        .slice(all.indexOf(current) + 1)
        .find((one) => one.plan && !one.log && !one.ahead);
      if (next) open(keyOf(next));
    },
    undo,
  });
  if (found.error) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Loading the log…</p>;
  return (
    <div className="beside grid-cols-[15rem_minmax(0,1fr)]">
      <nav
        aria-label="Sessions of the week"
        className="min-h-0 overflow-auto border-r border-rule py-3 max-lg:border-r-0 max-lg:border-b max-lg:py-1.5"
      >
        <List all={all} current={current} open={open} whole={whole} />
        {all.length === 0 && (
          <p className="px-5 text-sm text-ink-2">Nothing planned or done this week.</p>
        )}
        <button type="button" className="key-button mx-5 mt-3" onClick={() => open("new")}>
          Write what was done
        </button>
        {before && (
          <p role="status" className="mx-5 mt-3 text-sm">
            {before.title || "The log"} is{" "}
            {before.out ? "removed" : before.session ? "changed" : "logged"}.{" "}
            <button
              type="button"
              className="trail-link"
              title={`Key ${KEYS.undo.key}`}
              onClick={undo}
            >
              Undo
            </button>
          </p>
        )}
      </nav>
      <main className="min-h-0 overflow-auto bg-sheet px-6 pt-3 pb-10 max-md:px-4">
        {error && (
          <p role="alert" className="mb-2 border-l-4 border-high pl-3 text-sm">
            {error.message}
          </p>
        )}
        {writing ? (
          <WrittenLog
            place={place}
            days={found.data.days}
            today={found.data.today}
            stored={(id) => open(id)}
          />
        ) : current ? (
          <SessionLog
            key={keyOf(current)}
            place={place}
            one={current}
            names={names.data?.movements ?? []}
            reasons={found.data.missed_reasons}
            busy={busy}
            edit={(how) => edit(keyOf(current), how)}
            whole={() => whole(current)}
            remove={() => takeOut(keyOf(current))}
            left={left?.key === keyOf(current) ? left.sets : 0}
          />
        ) : (
          <p className="max-w-prose py-6">
            Write what was done, or go to a week that has a plan with{" "}
            <kbd className="font-mono text-xs">[</kbd> and{" "}
            <kbd className="font-mono text-xs">]</kbd>.
          </p>
        )}
      </main>
    </div>
  );
}

interface ListProps {
  all: LogSession[];
  current: LogSession | undefined;
  open: (key: string) => void;
  whole: (one: LogSession) => void;
}

/** The sessions of the week, solid where they are logged. */
function List({ all, current, open, whole }: ListProps) {
  return (
    <ol className="max-lg:flex max-lg:overflow-x-auto">
      {all.map((one) => (
        <li key={keyOf(one)} className={`max-lg:shrink-0 ${one === current ? "bg-sheet" : ""}`}>
          <button
            type="button"
            onClick={() => open(keyOf(one))}
            aria-current={one === current || undefined}
            className="block w-full px-5 pt-1.5 text-left"
          >
            <span className="flex items-center gap-2 text-sm text-ink-2">
              <span
                aria-hidden="true"
                className={`size-2.5 border border-ink ${one.log ? "bg-ink" : ""}`}
              />
              {day(one.plan?.date ?? one.log?.session.date ?? "")}
              {one.versions.length > 0 && <span className="text-caution">two versions</span>}
            </span>
            <span className={`block truncate ${one === current ? "font-semibold" : ""}`}>
              {one.plan?.title || one.log?.session.title || "Session"}
            </span>
          </button>
          <span className="block px-5 pb-1.5 text-sm">
            {one.log ? (
              <span className="text-ink-2">{state(one)}</span>
            ) : one.ahead ? (
              <span className="text-ink-2">ahead</span>
            ) : one.plan?.missed ? (
              <span className="text-ink-2">missed</span>
            ) : (
              <button
                type="button"
                className="key-button min-h-6 px-2 py-0"
                onClick={() => whole(one)}
              >
                As planned
              </button>
            )}
          </span>
        </li>
      ))}
    </ol>
  );
}

/** How a logged session stands to its plan. */
function state(one: LogSession): string {
  const differ = one.lines.filter((line) => line.kind !== "as planned").length;
  if (!one.plan) return "not planned";
  return differ === 0
    ? "as planned"
    : `${differ} set${differ === 1 ? "" : "s"} differ${differ === 1 ? "s" : ""}`;
}
