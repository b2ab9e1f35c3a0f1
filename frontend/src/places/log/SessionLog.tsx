import type { Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { KEYS } from "@/frame/keys";
import { MAIN_MEASURES, amount, count, day, moment, share, unitOf } from "@/words";
import { After } from "./After";
import { LogLines } from "./LogLines";
import { MissedWhy } from "./MissedWhy";
import { Versions } from "./Versions";
import { type LogSession, sessionOf } from "./log";
import type { How } from "./useEdits";

interface Props {
  place: WeekPlace;
  one: LogSession;
  names: Schemas["MovementName"][];
  reasons: Schemas["MissedChoice"][];
  busy: boolean;
  edit: (how: How) => void;
  whole: () => void;
  remove: () => void;
  /** So many sets stayed as they were said when the rest was taken as planned. */
  left: number;
}

/** A session of the week: what was planned and done, what it came to, and what is said of it. */
export function SessionLog({ place, one, names, reasons, busy, edit, whole, remove, left }: Props) {
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
            className="trail-link ml-auto min-h-6 text-sm text-ink-2"
            disabled={busy}
            onClick={remove}
          >
            Remove
          </button>
        )}
      </div>
      {left > 0 && (
        <p role="status" className="text-sm text-ink-2">
          The rest is logged as planned; the {count(left, "set")} you had changed{" "}
          {left === 1 ? "stays" : "stay"} as {left === 1 ? "it was" : "they were"}.
        </p>
      )}
      {one.by && (
        <p className="text-sm text-ink-2">
          Logged by {one.by.who}, {moment(one.by.at)}.
        </p>
      )}
      <Versions place={place} one={one} />
      <Sums one={one} />
      {one.plan && !one.log && !one.ahead && (
        <MissedWhy place={place} plan={one.plan} reasons={reasons} />
      )}
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
      {MAIN_MEASURES.map((measure) => (
        <span key={measure}>
          {amount(one.done[measure] ?? 0, measure)} {unitOf(measure)}
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
