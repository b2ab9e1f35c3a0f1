import { KEYS } from "@/frame/keys";
import { Tick } from "@/frame/Tick";
import { weekName } from "@/words";
import type { Wave } from "./useWave";

/** The whole block proposed at one key: how it is to rise, and publishing it. */
export function WaveHead({ wave, first, last }: { wave: Wave; first: string; last: string }) {
  if (!first || !wave.open) return null;
  const weeks =
    first === last
      ? weekName(first).toLowerCase()
      : `weeks ${Number(first.slice(6))} to ${Number(last.slice(6))}`;
  const off = [...wave.weeks.values()].some((one) => one.weeks_off !== null);
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-1 text-sm">
      <Tick
        label="Clear everything that can be cleared, in small steps"
        value={wave.allOfIt}
        put={wave.setAllOfIt}
      />
      {off && (
        <Tick
          label="Begin low after the break, at about half of the last ordinary week"
          value={wave.easeIn}
          put={wave.setEaseIn}
        />
      )}
      {wave.asking ? (
        <>
          <span role="status" className="text-ink-2 italic">
            calculating {weekName(wave.asking).toLowerCase()}…
          </span>
          <button type="button" className="trail-link" onClick={wave.stop}>
            Stop
          </button>
        </>
      ) : (
        <span role="status" className="text-ink-2">
          {wave.complete
            ? "Each week takes the ones before it as done. Days that have a log stay."
            : ""}
        </span>
      )}
      <button
        type="button"
        className="ink-button ml-auto"
        disabled={!wave.complete || wave.publish.isPending}
        onClick={() => wave.publish.mutate(undefined)}
      >
        Publish {weeks} as proposed
      </button>
      {(wave.error || wave.publish.error) && (
        <p role="alert" className="w-full border-l-4 border-high pl-3">
          {wave.error ?? wave.publish.error?.message}
        </p>
      )}
    </div>
  );
}

/** Opens the proposal for the weeks ahead, and closes it. */
export function WaveButton({ wave }: { wave: Wave }) {
  return (
    <button
      type="button"
      className="key-button"
      aria-expanded={wave.open}
      title={`Key ${KEYS.propose.key}`}
      onClick={wave.toggle}
    >
      {wave.open ? "Close the proposal" : "Propose the block"}
    </button>
  );
}
