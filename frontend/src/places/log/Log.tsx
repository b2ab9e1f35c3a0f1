import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { logs, useLog } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { useMovementNames } from "@/api/write";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { amount, day, share, unit } from "@/words";
import { LogLines } from "./LogLines";
import { WrittenLog } from "./WrittenLog";
import { asPlanned } from "@/places/floor/rules";
import { type CoreSession, type LogSession, emptyLog, keyOf } from "./log";
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
  const whole = (one: LogSession) =>
    edit(
      keyOf(one),
      (now) => now.plan && { ...sessionOf(now), sets: now.plan.sets.map(asPlanned) },
    );
  useKeys({
    asPlanned: () => {
      if (current?.plan && !current.log) whole(current);
    },
    undo,
  });
  if (found.error) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Opening the log…</p>;
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[15rem_minmax(0,1fr)] max-md:grid-cols-1 max-md:overflow-auto">
      <nav
        aria-label="Sessions of the week"
        className="min-h-0 overflow-auto border-r border-rule py-3 max-md:border-r-0 max-md:border-b max-md:py-1.5"
      >
        <ol className="max-md:flex max-md:overflow-x-auto">
          {all.map((one) => (
            <li key={keyOf(one)} className={`max-md:shrink-0 ${one === current ? "bg-sheet" : ""}`}>
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
                ) : (
                  <button type="button" className="key-button px-2 py-0" onClick={() => whole(one)}>
                    As planned
                  </button>
                )}
              </span>
            </li>
          ))}
        </ol>
        {all.length === 0 && (
          <p className="px-5 text-sm text-ink-2">Nothing is planned or done in this week.</p>
        )}
        <button type="button" className="key-button mx-5 mt-3" onClick={() => open("new")}>
          Write what was done
        </button>
        {before && (
          <p role="status" className="mx-5 mt-3 text-sm">
            {before.title || "The log"} is{" "}
            {before.out ? "out of the book" : before.session ? "changed" : "logged"}.{" "}
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
          <One
            key={keyOf(current)}
            place={place}
            one={current}
            names={names.data?.movements ?? []}
            busy={busy}
            edit={(how) => edit(keyOf(current), how)}
            whole={() => whole(current)}
            remove={() => takeOut(keyOf(current))}
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

function state(one: LogSession): string {
  const differ = one.lines.filter((line) => line.kind !== "as planned").length;
  if (!one.plan) return "not planned";
  return differ === 0
    ? "as planned"
    : `${differ} set${differ === 1 ? "" : "s"} differ${differ === 1 ? "s" : ""}`;
}

const sessionOf = (one: LogSession): CoreSession =>
  one.log?.session ?? emptyLog(one.plan?.date ?? "", one.plan?.title ?? "");

function One({
  place,
  one,
  names,
  busy,
  edit,
  whole,
  remove,
}: {
  place: WeekPlace;
  one: LogSession;
  names: Schemas["MovementName"][];
  busy: boolean;
  edit: ReturnType<typeof useEdits>["edit"] extends (key: string, how: infer How) => void
    ? (how: How) => void
    : never;
  whole: () => void;
  remove: () => void;
}) {
  const session = sessionOf(one);
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="text-lg font-semibold">
          {session.title || "Session"}{" "}
          <span className="text-base font-normal text-ink-2">{day(session.date)}</span>
        </h2>
        {one.plan && (
          <button
            type="button"
            className="key-button"
            title={`Key ${KEYS.asPlanned.key}`}
            onClick={whole}
          >
            All as planned
          </button>
        )}
        {one.log && (
          <button
            type="button"
            className="trail-link ml-auto text-sm text-ink-2"
            disabled={busy}
            onClick={remove}
          >
            Remove
          </button>
        )}
      </div>
      <Versions place={place} one={one} />
      <Sums one={one} />
      {one.notes.map((note) => (
        <p key={note} className="border-l-4 border-caution pl-3 text-sm">
          {note}
        </p>
      ))}
      {(session.pain ?? []).map((pain, at) => (
        // What hurt has no name but its place.
        <p key={at} className="border-l-4 border-high pl-3 text-sm">
          Stopped{pain.exercise ? ` at ${pain.exercise}` : ""} because something hurt
          {pain.note ? `: “${pain.note}”` : ""}.
        </p>
      ))}
      <LogLines
        place={place}
        one={one}
        names={names}
        edit={(how) =>
          edit(async (now) => {
            const sets = await how(now);
            return sets && { ...sessionOf(now), sets };
          })
        }
      />
      <After
        session={session}
        disabled={!one.log}
        keep={(said) => edit((now) => ({ ...sessionOf(now), ...said }))}
      />
      <p className="mt-4 max-w-prose text-xs text-ink-2">
        Type only what differed: <code>11</code>, <code>at 14 kg</code>,{" "}
        <code>9 at 12 kg RPE 9</code>, <code>40 s</code>, <code>easier</code>. Sharp pain, chest
        pain, dizziness or numbness end a session and are for a doctor.
      </p>
    </>
  );
}

function Sums({ one }: { one: LogSession }) {
  if (!one.log)
    return (
      <p className="py-1 text-sm text-ink-2">
        {one.plan
          ? `${one.plan.sets.length} sets planned, about ${Math.round(one.plan.minutes)} min. Nothing logged yet.`
          : ""}
      </p>
    );
  return (
    <p className="flex flex-wrap gap-x-6 py-1 text-sm">
      {(["sets", "reps", "volume_load_kg", "tut_s"] as const).map((measure) => (
        <span key={measure}>
          {amount(one.done[measure] ?? 0, measure)}{" "}
          {measure === "tut_s" ? "s of tension" : unit(measure)}
          {one.plan && (
            <span className="text-ink-2">
              {" "}
              of {amount(one.planned[measure] ?? 0, measure)}
              {one.planned[measure]
                ? ` (${share((one.done[measure] ?? 0) / one.planned[measure])})`
                : ""}
            </span>
          )}
        </span>
      ))}
    </p>
  );
}

function Versions({ place, one }: { place: WeekPlace; one: LogSession }) {
  const decide = useChange(({ id, keep }: { id: number; keep: "stored" | "other" }) =>
    logs.decide(place.athlete, id, keep),
  );
  return one.versions.map((version) => (
    <section
      key={version.id}
      aria-label="Two versions"
      className="my-2 border-l-4 border-caution bg-paper px-4 py-2 text-sm"
    >
      <p className="font-semibold">
        This session was changed in two places. Both are kept: which one is right?
      </p>
      {version.apart.length === 0 ? (
        <p>They say the same of every set.</p>
      ) : (
        <table className="my-1">
          <thead>
            <tr className="text-left text-ink-2">
              <th scope="col" className="pr-6 font-normal italic">
                apart
              </th>
              <th scope="col" className="pr-6 font-normal italic">
                the stored one
              </th>
              <th scope="col" className="font-normal italic">
                the other, arrived {day(version.day)}
              </th>
            </tr>
          </thead>
          <tbody>
            {version.apart.map((row) => (
              <tr key={row.what} className="border-t border-hair align-top">
                <th scope="row" className="pr-6 text-left font-normal">
                  {row.what}
                </th>
                <td className="pr-6">{row.stored || "nothing"}</td>
                <td>{row.other || "nothing"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-1 flex gap-3">
        <button
          type="button"
          className="key-button"
          disabled={decide.isPending}
          onClick={() => decide.mutate({ id: version.id, keep: "stored" })}
        >
          Keep the stored one
        </button>
        <button
          type="button"
          className="key-button"
          disabled={decide.isPending}
          onClick={() => decide.mutate({ id: version.id, keep: "other" })}
        >
          Take the other
        </button>
      </p>
    </section>
  ));
}

/** What is said of the whole session afterwards. */
function After({
  session,
  disabled,
  keep,
}: {
  session: CoreSession;
  disabled: boolean;
  keep: (said: Partial<CoreSession>) => void;
}) {
  const text = (value: number | null | undefined) =>
    value === null || value === undefined ? "" : String(value);
  const number = (typed: string) => (typed.trim() === "" ? null : Number(typed.replace(",", ".")));
  const within = (most: number, says: string) => (typed: string) => {
    const value = number(typed);
    return value === null || (value >= 0 && value <= most) ? null : says;
  };
  return (
    <div className="mt-4 flex flex-wrap items-start gap-4 text-sm">
      <Said
        label="Exertion, 0 to 10"
        stored={text(session.rpe)}
        disabled={disabled}
        wrong={within(10, "Exertion goes from 0 to 10.")}
        keep={(typed) => keep({ rpe: number(typed) })}
      />
      <Said
        label="Minutes"
        stored={text(session.duration_min)}
        disabled={disabled}
        wrong={within(1440, "A session has from 0 to 1440 minutes.")}
        keep={(typed) => keep({ duration_min: number(typed) })}
      />
      <Said
        label="Notes"
        wide
        stored={session.notes ?? ""}
        disabled={disabled}
        wrong={() => null}
        keep={(notes) => keep({ notes })}
      />
    </div>
  );
}

/** A field that is kept when it is left; what was typed stays until it is stored. */
function Said({
  label,
  stored,
  wide = false,
  disabled,
  wrong,
  keep,
}: {
  label: string;
  stored: string;
  wide?: boolean;
  disabled: boolean;
  wrong: (typed: string) => string | null;
  keep: (typed: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [seen, setSeen] = useState(stored);
  if (seen !== stored) {
    // What was typed is stored now, or something else is.
    setSeen(stored);
    setTyped(null);
  }
  const says = typed === null ? null : wrong(typed);
  return (
    <label className={wide ? "min-w-60 flex-1" : "w-32"}>
      {label}
      <input
        value={typed ?? stored}
        disabled={disabled}
        inputMode={wide ? "text" : "decimal"}
        maxLength={2000}
        aria-invalid={says !== null || undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && typed !== stored && says === null) keep(typed);
        }}
        className={`field mt-0.5 block aria-invalid:border-high ${wide ? "w-full" : "w-20"}`}
      />
      {says && (
        <span role="alert" className="mt-1 block text-high">
          {says}
        </span>
      )}
    </label>
  );
}
