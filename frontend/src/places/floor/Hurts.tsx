import { useState } from "react";
import { DialogSheet } from "@/frame/DialogSheet";
import type { Run } from "./run";
import { Row, Tap } from "./taps";
import { useTyped } from "@/frame/useTyped";

interface Props {
  runs: Run[];
  /** What is being done. */
  movement: string | null;
  close: () => void;
  stop: (athlete: number, note: string) => void;
}

/** Whom something hurts, and where: that athlete's part ends here. */
export function Hurts({ runs, movement, close, stop }: Props) {
  // In a group nobody is taken for the one whom it hurts.
  const [who, setWho] = useState(runs.length === 1 ? runs[0]?.athlete : undefined);
  const [note, setNote] = useTyped("what hurts");
  return (
    <DialogSheet open close={close} title="Stop: something hurts">
      <p>
        Stop now. Sharp pain, chest pain, dizziness or numbness: see a doctor. What was done is
        saved, and the coach is told.{runs.length > 1 && " The others continue."}
      </p>
      {runs.length > 1 && (
        <Row label="Who">
          {runs.map((one) => (
            <Tap key={one.athlete} on={who === one.athlete} act={() => setWho(one.athlete)}>
              {one.name}
            </Tap>
          ))}
        </Row>
      )}
      <label className="mt-3 block">
        Where, and how{movement ? `, at ${movement}` : ""}
        <input
          value={note}
          maxLength={500}
          onChange={(event) => setNote(event.target.value)}
          className="field mt-0.5 h-12 w-full text-lg"
        />
      </label>
      <div className="mt-4 flex gap-3">
        <button
          type="button"
          className="ink-button h-12 px-4 text-lg whitespace-nowrap"
          disabled={who === undefined}
          onClick={() => {
            if (who !== undefined) stop(who, note);
            close();
          }}
        >
          Stop and record it
        </button>
        <button type="button" className="key-button h-12 px-6 text-lg" onClick={close}>
          Cancel
        </button>
      </div>
    </DialogSheet>
  );
}
