import { usePlanChanges, useTakingBack } from "@/api/plans";
import { DialogSheet } from "@/frame/DialogSheet";

interface Props {
  athlete: number;
  open: boolean;
  close: () => void;
}

const WHEN = new Intl.DateTimeFormat("en-GB", {
  weekday: "short",
  day: "numeric",
  month: "short",
  hour: "2-digit",
  minute: "2-digit",
});

/** What was done to the plans in the last thirty days: taken back, or made again, one by one. */
export function ChangesDialog({ athlete, open, close }: Props) {
  const found = usePlanChanges(athlete);
  const { swap, busy, error } = useTakingBack(athlete);
  const all = found.data?.changes ?? [];
  return (
    <DialogSheet open={open} close={close} title="Changes of the plans">
      {all.length === 0 && (
        <p className="text-ink-2">
          Nothing was laid, published or taken in during the last thirty days.
        </p>
      )}
      <ul className="max-h-96 overflow-auto text-sm">
        {all.map((one) => (
          <li key={one.id} className="flex items-baseline gap-3 border-b border-hair py-1">
            <span className="w-36 shrink-0 text-ink-2">{WHEN.format(new Date(one.at))}</span>
            <span className={`min-w-0 flex-1 ${one.undone ? "text-ink-2 line-through" : ""}`}>
              {one.says}
            </span>
            <button type="button" className="key-button" disabled={busy} onClick={() => swap(one)}>
              {one.undone ? "Make again" : "Take back"}
            </button>
          </li>
        ))}
      </ul>
      {error && (
        <p role="alert" className="mt-2 text-high">
          {error.message}
        </p>
      )}
      <button type="button" className="key-button mt-4" onClick={close}>
        Close
      </button>
    </DialogSheet>
  );
}
