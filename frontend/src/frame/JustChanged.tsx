import { useLocation, useNavigate } from "react-router";
import { useTakingBack, useUndoable } from "@/api/journal";

/** What was just done to the plans, with the way back; it goes when one walks on. */
export function JustChanged({ athlete }: { athlete: number }) {
  const location = useLocation();
  const go = useNavigate();
  const number = (location.state as { change?: number } | null)?.change;
  const found = useUndoable(athlete);
  const { swap, busy, error } = useTakingBack();
  const here = found.data?.entries.find((one) => one.id === number);
  if (!here) return null;
  const away = () => void go(location.pathname + location.search, { replace: true, state: null });
  return (
    <div className="mb-2 flex items-baseline gap-3 border-l-4 border-ink pl-3 text-sm print:hidden">
      <p role="status">{here.undone ? `Undone: ${here.says.toLowerCase()}.` : `${here.says}.`}</p>
      <button
        type="button"
        className="trail-link"
        disabled={busy}
        onClick={() => swap(here, false)}
      >
        {here.undone ? "Publish it again" : "Undo"}
      </button>
      {error && (
        <p role="alert" className="text-high">
          {error.message}
        </p>
      )}
      <button type="button" className="trail-link ml-auto text-ink-2" onClick={away}>
        Close
      </button>
    </div>
  );
}
