import { useEffect, useRef } from "react";
import { May } from "@/frame/May";
import { useTyped } from "@/frame/useTyped";

interface Props {
  accepted: boolean;
  reason: string | null;
  /** Counts up when the reason is to be typed. */
  focusReason: number;
  what: string;
  accept: (reason: string) => void;
  reopen: () => void;
  pending: boolean;
  error: Error | null;
}

/** A reason to accept something, or the reason for which it was accepted. */
export function AcceptForm({
  accepted,
  reason,
  focusReason,
  what,
  accept,
  reopen,
  pending,
  error,
}: Props) {
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useTyped(`reason to accept ${what}`);
  useEffect(() => {
    if (focusReason > 0) field.current?.focus();
  }, [focusReason]);
  return (
    <>
      {accepted ? (
        <p className="flex items-baseline gap-3">
          <span className="text-ink-2 italic">Accepted{reason && `: ${reason}`}</span>
          <May right="plan">
            <button type="button" className="key-button no-print" onClick={reopen}>
              Open again
            </button>
          </May>
        </p>
      ) : (
        <May right="plan">
          <form
            className="no-print flex gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (text.trim()) accept(text);
            }}
          >
            <input
              ref={field}
              value={text}
              onChange={(event) => setText(event.target.value)}
              onKeyDown={(event) => event.key === "Escape" && event.currentTarget.blur()}
              placeholder={reason ? `Grew since: ${reason}` : "Reason"}
              aria-label={`Reason to accept the ${what}`}
              maxLength={500}
              className="field min-w-0 flex-1"
            />
            <button type="submit" disabled={!text.trim() || pending} className="key-button">
              Accept
            </button>
          </form>
        </May>
      )}
      {error && (
        <p role="alert" className="mt-1 text-high">
          {error.message}
        </p>
      )}
    </>
  );
}
