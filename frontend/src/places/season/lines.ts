import type { SeasonLine, SeasonWeek } from "@/api/season";
import { amount, ratio, share, unit, weekName, weight } from "@/words";

export const KINDS: { kind: SeasonLine["kind"]; title: string }[] = [
  { kind: "measure", title: "Measures" },
  { kind: "done", title: "Plan" },
  { kind: "load", title: "Load" },
  { kind: "pair", title: "Balance" },
  { kind: "muscle", title: "Muscles, weekly sets" },
  { kind: "movement", title: "Movements, heaviest load" },
];

/** The name of a line in the address bar. */
export const lineKey = (line: SeasonLine): string => `${line.kind}/${line.subject}`;

/** A value of a line with its unit, as it is read. */
export function told(line: SeasonLine, value: number | null | undefined): string {
  if (value === null || value === undefined) return "–";
  switch (line.measure) {
    case "ratio":
      return ratio(value);
    case "share":
      return share(value);
    case "load":
      return amount(value, "reps");
    case "load_kg":
      return weight(value);
    default:
      return `${amount(value, line.measure)} ${unit(line.measure)}`;
  }
}

/** What is allowed, in words; empty where nothing is said of it. */
export function allowed(line: SeasonLine, at: number): string {
  const [low, high] = [line.lows?.[at] ?? null, line.highs?.[at] ?? null];
  if (low !== null && high !== null) return `${told(line, low)} to ${told(line, high)}`;
  if (high !== null) return `up to ${told(line, high)}`;
  return low === null ? "" : `from ${told(line, low)}`;
}

const STANDINGS: Record<SeasonLine["standings"][number], string> = {
  none: "",
  below: "below its band",
  within: "within",
  above: "above its band",
};

/** A week of a line in words: for those who do not see the mark, and on hover. */
export function reading(line: SeasonLine, weeks: SeasonWeek[], at: number): string {
  const week = weekName(weeks[at]?.week ?? "");
  const value = line.values[at] ?? null;
  const parts = [
    line.one_sided?.[at] ? "all on one side" : value === null ? "nothing" : told(line, value),
    line.rough?.[at] ? "estimated in part" : "",
    STANDINGS[line.standings[at] ?? "none"],
  ];
  return `${week}: ${parts.filter(Boolean).join(", ")}`;
}

/**
 * Where a value stands in a cell, from 0 at its foot to 1 at its head. The band is the middle
 * third; without one, a line is drawn between its own least and most.
 */
export function height(line: SeasonLine, at: number, [least, most]: [number, number]): number {
  const value = line.values[at] ?? null;
  if (line.one_sided?.[at]) return 1;
  if (value === null) return 0;
  const [low, high] = [line.lows?.[at] ?? null, line.highs?.[at] ?? null];
  const base = line.bases?.[at] ?? null;
  const clamp = (part: number) => Math.min(1, Math.max(0, part));
  if (low !== null && high !== null && high > low)
    return clamp(1 / 3 + (value - low) / (high - low) / 3);
  // Only an end above: what it grew from stands in the middle of the band.
  const from = base ?? 0;
  if (high !== null && high > from) return clamp(1 / 2 + (value - from) / (high - from) / 6);
  return most > least ? clamp(0.15 + (0.7 * (value - least)) / (most - least)) : 0.5;
}

/** The least and the most of a line's values. */
export function range(line: SeasonLine): [number, number] {
  const values = line.values.filter((one): one is number => one !== null);
  return [Math.min(...values), Math.max(...values)];
}
