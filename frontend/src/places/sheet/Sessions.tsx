import type { ReactNode } from "react";
import { day } from "@/words";
import type { Sheet } from "./open";

/** So many differences are shown at once; the log has all of them. */
const SHOWN = 6;

interface Props {
  sessions: Sheet["sessions"];
  /** What stands at the end of their line. */
  children: ReactNode;
}

/** The sessions of the week, done or not, and what was otherwise in them than planned. */
export function Sessions({ sessions, children }: Props) {
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-3 gap-y-1 pb-2 text-sm">
        <ol className="flex flex-wrap gap-x-5">
          {sessions.map((one) => (
            <li key={one.date + one.title} className="flex items-baseline gap-1.5">
              <span
                aria-hidden="true"
                className={`inline-block size-2.5 self-center border border-ink ${one.done ? "bg-ink" : ""}`}
              />
              <span className={one.done ? "" : "text-ink-2"}>
                {day(one.date)} {one.title}
                {!one.planned && ", not planned"}
                {one.planned && !one.done && (one.ahead ? ", ahead" : ", not done")}
              </span>
            </li>
          ))}
        </ol>
        {children}
      </div>
      <Said sessions={sessions} />
      {sessions.some((one) => one.differed.length > 0) && (
        <details
          className="mb-2 text-sm"
          open={sessions.flatMap((one) => one.differed).length <= SHOWN}
        >
          <summary className="text-ink-2">Different from the plan</summary>
          <ul className="columns-2 gap-8 max-md:columns-1 print:columns-1">
            {sessions
              .filter((one) => one.differed.length > 0)
              .map((one) => (
                <li key={one.date + one.title} className="break-inside-avoid">
                  <span className="text-ink-2">{day(one.date)}:</span>{" "}
                  {one.differed.slice(0, SHOWN).join("; ")}
                  {one.differed.length > SHOWN && `; and ${one.differed.length - SHOWN} more`}.
                </li>
              ))}
          </ul>
        </details>
      )}
    </>
  );
}

/** What was said of the sessions and of their sets while they ran. */
function Said({ sessions }: { sessions: Sheet["sessions"] }) {
  const said = sessions.filter((one) => one.said.length > 0);
  if (said.length === 0) return null;
  return (
    <section aria-label="Remarks" className="mb-2 text-sm">
      <h3 className="text-ink-2">Remarks</h3>
      <ul className="columns-2 gap-8 max-md:columns-1 print:columns-1">
        {said.map((one) => (
          <li key={one.date + one.title} className="break-inside-avoid">
            <span className="text-ink-2">{day(one.date)}:</span> {one.said.join("; ")}
          </li>
        ))}
      </ul>
    </section>
  );
}
