import { Link } from "react-router";
import { useUndoable } from "@/api/journal";
import { DialogSheet } from "@/frame/DialogSheet";
import { Entries } from "@/frame/Entries";

interface Props {
  athlete: number;
  open: boolean;
  close: () => void;
}

/** What was done to the athlete's plans and data: taken back, or made again, one by one. */
export function ChangesDialog({ athlete, open, close }: Props) {
  const found = useUndoable(athlete);
  const all = found.data?.entries ?? [];
  return (
    <DialogSheet open={open} close={close} title="Changes of the last thirty days" wide>
      {all.length === 0 && <p className="text-ink-2">Nothing to undo.</p>}
      <div className="max-h-96 overflow-auto">
        <Entries entries={all} ofOne />
      </div>
      <p className="mt-4 flex items-baseline gap-5">
        <button type="button" className="key-button" onClick={close}>
          Close
        </button>
        <Link className="trail-link" to={`/journal?athlete=${athlete}`}>
          Everything in the journal
        </Link>
      </p>
    </DialogSheet>
  );
}
