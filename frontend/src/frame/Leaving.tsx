import { useEffect } from "react";
import { useBlocker } from "react-router";
import { DialogSheet } from "./DialogSheet";

interface Props {
  /** Whether something is in hand that would be lost. */
  unkept: boolean;
  what: string;
  /** Keep it, then go on; where that fails, one stays. */
  keep: () => Promise<unknown>;
  /** Let go of it. */
  drop: () => void;
}

/** Asks before a place is left with something that was not kept. */
export function Leaving({ unkept, what, keep, drop }: Props) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      unkept && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!unkept) return undefined;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [unkept]);
  if (blocker.state !== "blocked") return null;
  return (
    <DialogSheet open close={() => blocker.reset()} title="Not saved yet">
      <p>{what}</p>
      <div className="mt-4 flex flex-wrap gap-3">
        <button
          type="button"
          className="ink-button"
          onClick={() => {
            keep()
              .then(() => blocker.proceed())
              .catch(() => blocker.reset());
          }}
        >
          Save and leave
        </button>
        <button
          type="button"
          className="key-button"
          onClick={() => {
            drop();
            blocker.proceed();
          }}
        >
          Leave without saving
        </button>
        <button type="button" className="key-button ml-auto" onClick={() => blocker.reset()}>
          Stay
        </button>
      </div>
    </DialogSheet>
  );
}
