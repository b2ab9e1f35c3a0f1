import { useState } from "react";
import { useOwnCue } from "@/api/cues";
import { May } from "@/frame/May";
import { ownCueOf } from "./cues";
import type { Run } from "./run";
import type { SetInHand } from "./useSetInHand";

/** Words for a set: a remark on it, which stays with it, and what is said at its movement each time. */
export function Said({ hand, run }: { hand: SetInHand; run: Run }) {
  const { now, change } = hand;
  return (
    <div className="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-2">
      <label className="block">
        <span className="text-sm text-ink-2">Remark on this set</span>
        <input
          className="field h-11 w-full text-lg"
          maxLength={300}
          value={now.note ?? ""}
          onChange={(event) => change({ note: event.target.value })}
        />
      </label>
      {now.exercise && (
        <May right="log">
          <OwnCue key={now.exercise} run={run} movement={now.exercise} />
        </May>
      )}
    </div>
  );
}

/** What one athlete is told at a movement, before all else. */
function OwnCue({ run, movement }: { run: Run; movement: string }) {
  const kept = ownCueOf(run, movement);
  const [says, setSays] = useState(kept);
  const tell = useOwnCue(run.athlete);
  return (
    <div>
      <label className="block">
        <span className="text-sm text-ink-2">
          Cue for {run.name} at {movement}, every time
        </span>
        <span className="flex gap-2">
          <input
            className="field h-11 min-w-0 flex-1 text-lg"
            maxLength={90}
            value={says}
            onChange={(event) => setSays(event.target.value)}
          />
          <button
            type="button"
            className="key-button h-11 px-3 text-lg"
            disabled={tell.isPending || says.trim() === kept}
            onClick={() => tell.mutate({ movement, says })}
          >
            Keep
          </button>
        </span>
      </label>
      {tell.error && (
        <p role="alert" className="mt-1 border-l-4 border-high pl-2">
          {tell.error.message}
        </p>
      )}
    </div>
  );
}
