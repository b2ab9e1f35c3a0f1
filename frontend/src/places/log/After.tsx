import { useState } from "react";
import type { CoreSession } from "./log";

interface Props {
  session: CoreSession;
  disabled: boolean;
  keep: (said: Partial<CoreSession>) => void;
}

/** What is said of the whole session afterwards. */
export function After({ session, disabled, keep }: Props) {
  const text = (value: number | null | undefined) =>
    value === null || value === undefined ? "" : String(value);
  const number = (typed: string) => (typed.trim() === "" ? null : Number(typed.replace(",", ".")));
  const within = (most: number, says: string) => (typed: string) => {
    const value = number(typed);
    return value === null || (value >= 0 && value <= most) ? null : says;
  };
  return (
    <div className="mt-4 flex flex-wrap items-start gap-4 text-sm">
      <Said
        label="Exertion, 0 to 10"
        stored={text(session.rpe)}
        disabled={disabled}
        wrong={within(10, "Exertion goes from 0 to 10.")}
        keep={(typed) => keep({ rpe: number(typed) })}
      />
      <Said
        label="Minutes"
        stored={text(session.duration_min)}
        disabled={disabled}
        wrong={within(1440, "A session has from 0 to 1440 minutes.")}
        keep={(typed) => keep({ duration_min: number(typed) })}
      />
      <Said
        label="Notes"
        wide
        stored={session.notes ?? ""}
        disabled={disabled}
        wrong={() => null}
        keep={(notes) => keep({ notes })}
      />
    </div>
  );
}

interface SaidProps {
  label: string;
  stored: string;
  wide?: boolean;
  disabled: boolean;
  /** What is wrong with what was typed; null if nothing is. */
  wrong: (typed: string) => string | null;
  keep: (typed: string) => void;
}

/** A field that is kept when it is left; what was typed stays until it is stored. */
function Said({ label, stored, wide = false, disabled, wrong, keep }: SaidProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [seen, setSeen] = useState(stored);
  if (seen !== stored) {
    // What was typed is stored now, or something else is.
    setSeen(stored);
    setTyped(null);
  }
  const says = typed === null ? null : wrong(typed);
  return (
    <label className={wide ? "min-w-60 flex-1" : "w-32"}>
      {label}
      <input
        value={typed ?? stored}
        disabled={disabled}
        inputMode={wide ? "text" : "decimal"}
        maxLength={2000}
        aria-invalid={says !== null || undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && typed !== stored && says === null) keep(typed);
        }}
        className={`field mt-0.5 block aria-invalid:border-high ${wide ? "w-full" : "w-20"}`}
      />
      {says && (
        <span role="alert" className="mt-1 block text-high">
          {says}
        </span>
      )}
    </label>
  );
}
