import { useState } from "react";
import { Link } from "react-router";
import { BoxState } from "./BoxState";
import { type Run, leader } from "./run";
import { isMuted, setMuted } from "./sound";

/** Whose session it is, what has not reached the server yet, and whether it sounds. */
export function TopLine({ runs }: { runs: Run[] }) {
  const [muted, mute] = useState(isMuted);
  const lead = leader(runs);
  return (
    <div className="flex items-baseline gap-4 text-ink-2">
      <Link to="/floor" className="trail-link">
        Floor
      </Link>
      <span className="truncate">
        {lead.title}
        {runs.length === 1 ? `, ${lead.name}` : ""}
      </span>
      <span className="ml-auto flex items-baseline gap-4">
        <BoxState />
        <button
          type="button"
          aria-pressed={muted}
          className="trail-link min-h-6 text-sm whitespace-nowrap"
          onClick={() => {
            setMuted(!muted);
            mute(!muted);
          }}
        >
          {muted ? "Sound off" : "Sound on"}
        </button>
      </span>
    </div>
  );
}
