import { useState } from "react";
import { number } from "@/words";

interface Props {
  value: number;
  step: number;
  label: string;
  unit?: string;
  least?: number;
  most?: number;
  whole?: boolean;
  disabled?: boolean;
  set: (value: number) => void;
}

/** A number with steps: buttons, arrow keys, or typed. What is typed stays until it is a number. */
export function Stepper({
  value,
  step,
  label,
  unit,
  least = 0,
  most = 10_000,
  whole = false,
  disabled = false,
  set,
}: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const move = (by: number) => {
    setTyped(null);
    const next = Math.round((value + by) * 1000) / 1000;
    if (next >= least && next <= most) set(next);
  };
  const parsed = typed === null ? value : Number(typed.replace(",", "."));
  const fits =
    Number.isFinite(parsed) &&
    parsed >= least &&
    parsed <= most &&
    (!whole || Number.isInteger(parsed)) &&
    typed !== "";
  return (
    <span className="inline-flex items-baseline">
      <button
        type="button"
        tabIndex={-1}
        disabled={disabled}
        aria-label={`${label} down`}
        onClick={() => move(-step)}
        className="min-h-6 min-w-6 text-ink-2 hover:bg-band hover:text-ink disabled:invisible"
      >
        −
      </button>
      <input
        value={typed ?? number(value, 3).replace(/\s/g, "").replace("−", "-")}
        inputMode="decimal"
        disabled={disabled}
        aria-label={label}
        aria-invalid={!fits || undefined}
        title={fits ? undefined : `A number from ${least} to ${most}`}
        onChange={(event) => {
          const text = event.target.value.trim();
          setTyped(text);
          const next = Number(text.replace(",", "."));
          if (
            text !== "" &&
            Number.isFinite(next) &&
            next >= least &&
            next <= most &&
            (!whole || Number.isInteger(next)) &&
            next !== value
          )
            set(next);
        }}
        onBlur={() => setTyped(null)}
        onFocus={(event) => event.target.select()}
        onKeyDown={(event) => {
          if (event.key === "ArrowUp") {
            event.preventDefault();
            move(step);
          }
          if (event.key === "ArrowDown") {
            event.preventDefault();
            move(-step);
          }
          if (event.key === "Enter") setTyped(null);
        }}
        className="h-6 w-12 border-b border-rule bg-transparent text-right disabled:border-transparent aria-invalid:border-high aria-invalid:text-high"
      />
      <button
        type="button"
        tabIndex={-1}
        disabled={disabled}
        aria-label={`${label} up`}
        onClick={() => move(step)}
        className="min-h-6 min-w-6 text-ink-2 hover:bg-band hover:text-ink disabled:invisible"
      >
        +
      </button>
      {unit !== undefined && (
        <span className="w-7 pl-0.5 text-left text-sm text-ink-2">{unit}</span>
      )}
    </span>
  );
}
