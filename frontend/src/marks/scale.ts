import type { Schemas } from "@/api/client";
import { number } from "@/words";

/** How far a dial goes, and what a setting is: so many steps of a unit. */
export type Scale = Pick<Schemas["NotchesOut"], "least" | "most" | "step" | "unit" | "whole">;

const MOST_LABELS = 7;
const EVERY = [1, 2, 4, 5, 10, 20, 50, 100];

/** The settings that are written on the dial: round ones, and not too many. */
export function labelled({ least, most }: Scale): Set<number> {
  const every = EVERY.find((one) => (most - least) / one < MOST_LABELS) ?? 200;
  const first = Math.ceil(least / every) * every;
  const found = new Set<number>();
  for (let setting = first; setting <= most; setting += every) found.add(setting);
  return found;
}

/** A setting as it stands on the dial. */
export function tickWords({ step, unit }: Scale, setting: number): string {
  const value = setting * step;
  return unit === "sets" || unit === "pair" ? String(value) : withSign(value);
}

/** A setting in words: `57 sets`, `12 : 14`, `+5 %`, `−15 s`. */
export function settingWords({ step, unit, whole }: Scale, setting: number): string {
  const value = setting * step;
  if (unit === "sets") return `${value} ${value === 1 ? "set" : "sets"}`;
  if (unit === "pair") return `${value} : ${(whole ?? 0) - value}`;
  return value === 0 ? "as it is" : `${withSign(value)} ${unit}`;
}

const withSign = (value: number): string => (value > 0 ? `+${number(value, 1)}` : number(value, 1));
