import { type FormEvent, useState } from "react";
import { keptWeight, typedWeight, weightUnit } from "@/words";
import type { CoreSet } from "./log";

const SIDES = ["both", "each", "alternating", "left", "right"] as const;

interface Field {
  name: "reps" | "seconds" | "load_kg" | "implements" | "rpe";
  label: string;
  most: number;
  whole?: boolean;
}

/** A set that was done, in fields; what is left empty was not said. */
export function SetFields({
  set,
  name,
  take,
}: {
  set: CoreSet;
  name: string;
  take: (set: CoreSet) => void;
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  const fields: Field[] = [
    { name: "reps", label: "Reps", most: 10_000, whole: true },
    { name: "seconds", label: "Seconds", most: 86_400 },
    { name: "load_kg", label: `Load, ${weightUnit()}`, most: 1000 },
    { name: "implements", label: "Implements", most: 10, whole: true },
    { name: "rpe", label: "Exertion", most: 10 },
  ];
  const shown = (field: Field) => {
    const value = set[field.name];
    if (value === null || value === undefined || (field.name === "load_kg" && value === 0))
      return "";
    return String(field.name === "load_kg" ? typedWeight(value) : value);
  };
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const next: Record<string, unknown> = { ...set };
    for (const field of fields) {
      const text = String(form.get(field.name) ?? "")
        .trim()
        .replace(",", ".");
      if (text === shown(field)) continue;
      const value = Number(text);
      // Help is a negative load.
      const least = field.name === "load_kg" ? -field.most : 0;
      if (
        text !== "" &&
        !(value >= least && value <= field.most && (!field.whole || Number.isInteger(value)))
      ) {
        setWrong(`${field.label}: a ${field.whole ? "whole " : ""}number up to ${field.most}`);
        return;
      }
      next[field.name] =
        text === ""
          ? field.name === "load_kg"
            ? 0
            : field.name === "implements"
              ? 1
              : null
          : field.name === "load_kg"
            ? keptWeight(value)
            : value;
      if (field.name === "load_kg") next.unit = weightUnit() === "lb" ? "lb" : undefined;
    }
    if (next.reps === null && next.seconds === null) {
      setWrong("A set has reps or seconds.");
      return;
    }
    const tempo = String(form.get("tempo") ?? "").trim();
    take({ ...next, sides: form.get("sides"), tempo: tempo || null } as CoreSet);
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 pb-2"
      aria-label={`${name} in fields`}
      onSubmit={submit}
    >
      {fields.map((field) => (
        <label key={field.name} className="text-ink-2">
          {field.label}
          <input
            name={field.name}
            defaultValue={shown(field)}
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
        Take it
      </button>
      {wrong && (
        <p role="alert" className="w-full text-high">
          {wrong}
        </p>
      )}
    </form>
  );
}
