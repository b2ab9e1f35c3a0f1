import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import type { WeekPlace } from "@/api/place";
import { DialogSheet } from "@/frame/DialogSheet";
import type { Sessions } from "./draft";

/** A session to add a movement to, or a line of it that another is to stand in for. */
export interface Wanted {
  session: number;
  line: number | null;
  /** What stands there, or the title of the session. */
  name: string;
}

interface Props {
  place: WeekPlace;
  sessions: Sessions;
  wanted: Wanted | null;
  close: () => void;
  put: (movement: string) => void;
}

const SHOWN = 12;

/** The movements that fit, each with what it begins with: the athlete's own last set of it. */
export function MovementDialog({ place, sessions, wanted, close, put }: Props) {
  return (
    <DialogSheet
      open={wanted !== null}
      close={close}
      title={wanted?.line === null ? `Add to ${wanted.name}` : `In place of ${wanted?.name ?? ""}`}
    >
      {wanted && <Choice place={place} sessions={sessions} wanted={wanted} put={put} />}
      <button type="button" className="key-button mt-4" onClick={close}>
        Back to the draft
      </button>
    </DialogSheet>
  );
}

function Choice({
  place,
  sessions,
  wanted,
  put,
}: Omit<Props, "close" | "wanted"> & { wanted: Wanted }) {
  const [found, setFound] = useState<Schemas["CandidateOut"][] | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [typed, setTyped] = useState("");
  useEffect(() => {
    const control = new AbortController();
    dial
      .candidates(place, { sessions, session: wanted.session, line: wanted.line }, control.signal)
      .then((answer) => setFound(answer.candidates))
      .catch((problem: unknown) => {
        if (!control.signal.aborted) setError(messageOf(problem));
      });
    return () => control.abort();
  }, [place, sessions, wanted]);
  if (error)
    return (
      <p role="alert" className="text-high">
        {error}
      </p>
    );
  if (!found) return <p className="text-ink-2">Loading the movements…</p>;
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const fitting = found.filter((one) =>
    words.every((word) => `${one.movement} ${one.fits}`.toLowerCase().includes(word)),
  );
  const [first] = fitting;
  return (
    <>
      <label className="block text-sm text-ink-2">
        Name, pattern or muscle
        <input
          data-autofocus
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            // Else the key goes on to what the focus comes back to, and opens this again.
            event.preventDefault();
            if (first) put(first.movement);
          }}
          className="field mt-0.5 block w-full"
        />
      </label>
      <ul className="mt-2 text-sm">
        {fitting.slice(0, SHOWN).map((one) => (
          <li key={one.movement} className="flex items-baseline gap-3 border-b border-hair py-1">
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{one.movement}</span>{" "}
              <span className="text-ink-2">{one.fits}</span>
            </span>
            <span className={one.own ? "" : "text-ink-2 italic"}>
              {one.own
                ? one.begins
                : one.load_missing
                  ? "not done lately: type its load"
                  : `not done lately: ${one.begins}`}
            </span>
            <button
              type="button"
              className="key-button"
              aria-label={`Take ${one.movement}`}
              onClick={() => put(one.movement)}
            >
              Take
            </button>
          </li>
        ))}
      </ul>
      {fitting.length === 0 && (
        <p className="mt-2 text-sm text-ink-2">
          No movement is called that. Movements that a restriction forbids are left out.
        </p>
      )}
      {fitting.length > SHOWN && (
        <p className="mt-1 text-sm text-ink-2">{fitting.length - SHOWN} more: type to find them.</p>
      )}
    </>
  );
}
