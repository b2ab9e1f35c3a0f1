import { useEffect, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { useTyped } from "@/frame/useTyped";

export type Lasts = Schemas["DecisionBody"]["lasts"];

interface Props {
  inBlock: boolean;
  pending: boolean;
  decide: (lasts: Lasts, reason: string) => void;
  close: () => void;
}

/** What is said of something that stands, for how long, and why. */
export function DecideForm({ inBlock, pending, decide, close }: Props) {
  const [lasts, setLasts] = useState<Lasts>(inBlock ? "block" : "good");
  const [reason, setReason] = useTyped("reason to decide");
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  return (
    <form
      className="mt-1 flex flex-wrap gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) decide(lasts, reason);
      }}
    >
      <select
        className="field"
        aria-label="What is decided"
        value={lasts}
        onChange={(event) => setLasts(event.target.value as Lasts)}
      >
        {inBlock && <option value="block">Intended until the block ends</option>}
        <option value="good">Intended for good</option>
        <option value="watch">To be gone in four weeks</option>
      </select>
      <input
        ref={field}
        className="field min-w-32 flex-1"
        aria-label="Reason for the decision"
        placeholder="Reason"
        value={reason}
        maxLength={500}
        onChange={(event) => setReason(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && close()}
      />
      <button type="submit" className="key-button" disabled={!reason.trim() || pending}>
        Save
      </button>
      <button type="button" className="key-button" onClick={close}>
        Cancel
      </button>
    </form>
  );
}
