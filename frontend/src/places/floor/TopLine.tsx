import { useState } from "react";
import { Link } from "react-router";
import { BoxState } from "./BoxState";
import { type Run, leader } from "./run";
import { isMuted, isSpeaking, setMuted, setSpeaking, speak } from "./sound";
import { useVoices } from "./useVoices";

/** Whose session it is, what has not reached the server yet, and what is heard of it. */
export function TopLine({ runs }: { runs: Run[] }) {
  const [muted, mute] = useState(isMuted);
  const [speaks, setSpeaks] = useState(isSpeaking);
  const hasVoices = useVoices();
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
        {hasVoices && (
          <button
            type="button"
            aria-pressed={speaks}
            className="trail-link min-h-6 text-sm whitespace-nowrap"
            onClick={() => {
              setSpeaking(!speaks);
              setSpeaks(!speaks);
              // Tried at once: how it sounds in this room.
              speak("I call what comes next, halfway, ten seconds, and when to change sides.");
            }}
          >
            {speaks ? "Voice on" : "Voice off"}
          </button>
        )}
      </span>
    </div>
  );
}
