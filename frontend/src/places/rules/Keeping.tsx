import type { UseMutationResult } from "@tanstack/react-query";
import { Leaving } from "@/frame/Leaving";

interface Props {
  athlete: number | null;
  changed: boolean;
  /** Whether another window has kept other rules meanwhile. */
  isOlder: boolean;
  keep: UseMutationResult<void, Error, unknown>;
  discard: () => void;
  /** Back to the rules before the last ones, where these are still in force. */
  undo: (() => void) | null;
  problem: Error | null;
}

/** Keeping the choices in hand, letting go of them, and taking the last ones back. */
export function Keeping({ athlete, changed, isOlder, keep, discard, undo, problem }: Props) {
  return (
    <div className="mt-auto border-t border-rule px-5 py-3">
      {problem && (
        <p role="alert" className="mb-2 text-sm text-high">
          {problem.message}
        </p>
      )}
      <div className="flex gap-2">
        <button
          type="button"
          className="ink-button"
          disabled={!changed || keep.isPending}
          onClick={() => keep.mutate(undefined)}
        >
          {athlete === null ? "Save as house rules" : "Save for this athlete"}
        </button>
        <button type="button" className="key-button" disabled={!changed} onClick={discard}>
          Discard
        </button>
      </div>
      <p className="mt-2 text-xs text-ink-2">
        {changed
          ? isOlder
            ? "Other rules were saved in another window: choose above which to keep."
            : "Not saved yet. Saving recounts every week, past ones too."
          : "All saved."}
        {undo && (
          <>
            {" "}
            <button type="button" className="trail-link" onClick={undo}>
              Undo the last change
            </button>
          </>
        )}
      </p>
      <Leaving
        unkept={changed}
        what={
          athlete === null
            ? "Your changes to the house rules are not saved: leaving loses them."
            : "Your changes to this athlete’s rules are not saved: leaving loses them."
        }
        keep={() => keep.mutateAsync(undefined)}
        drop={discard}
      />
    </div>
  );
}
