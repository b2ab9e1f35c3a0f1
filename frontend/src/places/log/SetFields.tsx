import { type FormEvent, useState } from "react";
import { keptWeight, typedWeight, weightUnit } from "@/words";
import type { CoreSet } from "@/api/client";

const SIDES = ["both", "each", "alternating", "left", "right"] as const;

interface Field {
  name: "reps" | "seconds" | "load_kg" | "implements" | "rpe";
  label: string;
  most: number;
  whole?: boolean;
}

const fields = (): Field[] => [
  { name: "reps", label: "Reps", most: 10_000, whole: true },
  { name: "seconds", label: "Seconds", most: 86_400 },
  { name: "load_kg", label: `Load, ${weightUnit()}`, most: 1000 },
  { name: "implements", label: "Implements", most: 10, whole: true },
  { name: "rpe", label: "Exertion", most: 10 },
];

/** What stands for nothing said. */
const NOTHING = { reps: null, seconds: null, load_kg: 0, implements: 1, rpe: null };

function shown(set: CoreSet, field: Field): string {
  const value = set[field.name];
  if (value === null || value === undefined || (field.name === "load_kg" && value === 0)) return "";
  return String(field.name === "load_kg" ? typedWeight(value) : value);
}

/** The set with what was typed; what is wrong, in words, if something is. */
function read(set: CoreSet, form: FormData): CoreSet | string {
  const next: Record<string, unknown> = { ...set };
  for (const field of fields()) {
    const text = String(form.get(field.name) ?? "")
      .trim()
      .replace(",", ".");
    if (text === shown(set, field)) continue;
    const value = Number(text);
    const isLoad = field.name === "load_kg";
    // Help is a negative load.
    const least = isLoad ? -field.most : 0;
    const fits = value >= least && value <= field.most && (!field.whole || Number.isInteger(value));
    if (text !== "" && !fits)
      return `${field.label}: a ${field.whole ? "whole " : ""}number up to ${field.most}`;
    next[field.name] = text === "" ? NOTHING[field.name] : isLoad ? keptWeight(value) : value;
    if (isLoad) next.unit = weightUnit() === "lb" ? "lb" : undefined;
  }
  if (next.reps === null && next.seconds === null) return "A set has reps or seconds.";
  const tempo = String(form.get("tempo") ?? "").trim();
  return { ...next, sides: form.get("sides"), tempo: tempo || null } as CoreSet;
}

interface Props {
  set: CoreSet;
  name: string;
  take: (set: CoreSet) => void;
}

/** A set that was done, in fields; what is left empty was not said. */
export function SetFields({ set, name, take }: Props) {
  const [wrong, setWrong] = useState<string | null>(null);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const said = read(set, new FormData(event.currentTarget));
    if (typeof said === "string") setWrong(said);
    else take(said);
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 pb-2"
      aria-label={`${name} in fields`}
      onSubmit={submit}
    >
      {fields().map((field) => (
        <label key={field.name} className="text-ink-2">
          {field.label}
          <input
            name={field.name}
            defaultValue={shown(set, field)}
            inputMode="decimal"
            className="field mt-0.5 block h-7 w-20 py-0 text-ink"
          />
        </label>
      ))}
      <label className="text-ink-2">
        Side
        <select
          name="sides"
          defaultValue={set.sides ?? "both"}
          className="field mt-0.5 block h-7 py-0 text-ink"
        >
          {SIDES.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </label>
      <label className="text-ink-2">
        Tempo
        <input
          name="tempo"
          defaultValue={set.tempo ?? ""}
          className="field mt-0.5 block h-7 w-24 py-0 text-ink"
        />
      </label>
      <button type="submit" className="key-button h-7 py-0">
        Apply
      </button>
      {wrong && (
        <p role="alert" className="w-full text-high">
          {wrong}
        </p>
      )}
    </form>
  );
}
