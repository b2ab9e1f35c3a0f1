import { type Rep, measured } from "./useSensor";

export interface Watch {
  on: boolean;
  put: (on: boolean) => void;
  sensed: { reps: Rep[]; problem: string | null };
  /** The tempo that is asked for. */
  tempo: string;
}

/** The sensor on or off, and what it sees of the set in hand. */
export function SensorLine({ on, put, sensed, tempo }: Watch) {
  const seen = measured(sensed.reps);
  return (
    <p className="mt-2 min-h-6 text-ink-2">
      <label className="inline-flex min-h-6 items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-ink"
          checked={on}
          onChange={(event) => put(event.target.checked)}
        />
        Sensor (simulated)
      </label>
      {on && (
        <span className="ml-4 text-lg text-ink" aria-live="polite">
          {sensed.problem ??
            (seen
              ? `${seen.reps} rep${seen.reps === 1 ? "" : "s"}, tempo ${seen.tempo} of ${tempo}, ${seen.tension} s under load`
              : "waiting for the first rep")}
        </span>
      )}
    </p>
  );
}
