import { type ReactNode, useState } from "react";

interface CountProps {
  label: string;
  value: number;
  put: (value: number) => void;
  /** How much a tap is, where it is not the next load of the kit. */
  step?: number;
  less?: () => void;
  more?: () => void;
  whole?: boolean;
}

const MOST = 10_000;

/** A number to tap up and down, or to type. */
export function Count({ label, value, put, step = 1, less, more, whole = false }: CountProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const clamp = (next: number) => Math.min(MOST, Math.max(0, next));
  const read = (text: string) => {
    setTyped(text);
    const next = Number(text.trim().replace(",", "."));
    if (text.trim() && Number.isFinite(next) && next >= 0)
      put(clamp(whole ? Math.round(next) : next));
  };
  const tap = (by: number, act?: () => void) => {
    setTyped(null);
    if (act) act();
    else put(clamp(value + by));
  };
  return (
    <div>
      <span className="text-sm text-ink-2">{label}</span>
      <div className="flex items-center gap-3">
        <button
          type="button"
          aria-label={`${label}: less`}
          className="key-button h-12 w-14 text-2xl"
          onClick={() => tap(-step, less)}
        >
          −
        </button>
        <input
          aria-label={label}
          inputMode={whole ? "numeric" : "decimal"}
          className="field h-12 w-24 text-center text-2xl font-semibold"
          value={typed ?? String(value)}
          onFocus={(event) => event.target.select()}
          onChange={(event) => read(event.target.value)}
          onBlur={() => setTyped(null)}
        />
        <button
          type="button"
          aria-label={`${label}: more`}
          className="key-button h-12 w-14 text-2xl"
          onClick={() => tap(step, more)}
        >
          +
        </button>
      </div>
    </div>
  );
}

/** Choices under a word. */
export function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div role="group" aria-label={label}>
      <span className="text-sm text-ink-2">{label}</span>
      <div className="flex flex-wrap gap-1.5">{children}</div>
    </div>
  );
}

interface TapProps {
  on: boolean;
  off?: boolean;
  act: () => void;
  children: ReactNode;
}

/** A choice for a thumb. */
export function Tap({ on, off = false, act, children }: TapProps) {
  return (
    <button
      type="button"
      aria-pressed={on}
      disabled={off}
      onClick={act}
      className={`h-11 min-w-11 border px-2.5 ${on ? "border-ink bg-ink text-sheet" : "border-rule disabled:border-dashed disabled:text-ink-2"}`}
    >
      {children}
    </button>
  );
}
