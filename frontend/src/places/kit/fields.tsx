import { useState } from "react";
import { keptWeight, typedWeight } from "@/words";
import { parsed, value } from "./parse";

interface LoadsProps {
  label: string;
  value: readonly number[];
  put: (loads: number[]) => void;
  /** To be told what is wrong; an empty text if nothing is. */
  note: (problem: string) => void;
}

/** Weights in a line, with ranges. */
export function Loads({ label, value: loads, put, note }: LoadsProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  return (
    <>
      <input
        aria-label={label}
        value={typed ?? loads.map(typedWeight).join(", ")}
        aria-invalid={problem !== "" || undefined}
        className="field w-full aria-invalid:border-high"
        onChange={(event) => {
          setTyped(event.target.value);
          const next = parsed(event.target.value);
          const says =
            typeof next === "string"
              ? `“${next}” is not a load: write weights with commas between, as in 10, 12.5, 14-20 by 2`
              : "";
          setProblem(says);
          note(says);
          if (typeof next !== "string") put(next.map(keptWeight));
        }}
        onBlur={() => {
          if (problem === "") setTyped(null);
        }}
      />
      {problem && (
        <p role="alert" className="text-sm text-high">
          {problem}
        </p>
      )}
    </>
  );
}

interface WordsProps {
  label: string;
  value: string[];
  put: (words: string[]) => void;
  hint?: string;
}

/** Names in a line, with commas between. */
export function Words({ label, value: words, put, hint }: WordsProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      aria-label={label}
      value={typed ?? words.join(", ")}
      placeholder={hint}
      className="field mt-1 w-full"
      onChange={(event) => {
        setTyped(event.target.value);
        put(
          event.target.value
            .split(",")
            .map((one) => one.trim())
            .filter(Boolean),
        );
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

interface NumberProps {
  label: string;
  value: number;
  put: (value: number) => void;
}

/** A number above zero. */
export function NumberField({ label, value: now, put }: NumberProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      aria-label={label}
      inputMode="decimal"
      value={typed ?? String(now)}
      className="h-6 w-14 border-b border-rule bg-transparent text-right"
      onChange={(event) => {
        setTyped(event.target.value);
        const next = value(event.target.value);
        if (event.target.value.trim() !== "" && Number.isFinite(next) && next > 0) put(next);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

/** To take a row away. */
export function Remove({ what, act }: { what: string; act: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Remove ${what}`}
      className="h-6 w-6 text-ink-2 hover:text-ink"
      onClick={act}
    >
      ×
    </button>
  );
}
