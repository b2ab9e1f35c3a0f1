import type { Basis, Schemas } from "./api/client";
import TABLE from "./api/measures.json";

const MEASURES = new Map(TABLE.map((one) => [one.name, one]));
const isWeight = (measure: string) => MEASURES.get(measure)?.unit === "weight";

/** The subject of a finding about the week as a whole. */
export const WHOLE_WEEK = "total";

/** The four measures that everything is summed and judged in. */
export const MAIN_MEASURES = TABLE.filter((one) => one.main).map((one) => one.name);

/** The measures that a muscle or a movement has. */
export const measuresOf = (what: "muscle" | "movement"): string[] =>
  TABLE.filter((one) => one.of.includes(what)).map((one) => one.name);

const THIN = "\u202f";

/** A number as a person writes it: no needless zeros, thin groups of three. */
export function number(value: number, digits = 2): string {
  const text = String(Number(Math.abs(value).toFixed(digits)));
  const [whole = "0", part] = text.split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, THIN);
  const sign = value < 0 && Number(text) !== 0 ? "−" : "";
  return sign + grouped + (part ? `.${part}` : "");
}

const KG_PER_LB = 0.45359237;

let shown: "kg" | "lb" = "kg";

/** Show all weights in this unit from here on; they are kept in kg. */
export function showIn(unit: "kg" | "lb"): void {
  shown = unit;
}

/** A figure in its measure's usual digits, without unit. */
export function amount(value: number, measure: string): string {
  return number(value / shownBy(measure), MEASURES.get(measure)?.digits ?? 2);
}

/** The unit in which weights are shown and typed. */
export const weightUnit = (): "kg" | "lb" => shown;

const rounded = (value: number, digits: number) => Number(value.toFixed(digits));

/** A weight of so many kilograms as it is typed in that unit; and back. They undo each other. */
export const typedWeight = (kg: number): number =>
  shown === "lb" ? rounded(kg / KG_PER_LB, 2) : kg;
export const keptWeight = (typed: number): number =>
  shown === "lb" ? rounded(typed * KG_PER_LB, 3) : typed;

/** A load with its unit: in the one that it was entered in, else in the one that is shown. */
export function weight(kg: number, entered?: unknown): string {
  const unit = entered === "lb" ? "lb" : entered === "kg" ? "kg" : shown;
  return `${number(unit === "lb" ? kg / KG_PER_LB : kg, 2)} ${unit}`;
}

/** What a value of a measure is divided by to be shown: kilograms are kept, whatever is read. */
export const shownBy = (measure: string): number =>
  isWeight(measure) && shown === "lb" ? KG_PER_LB : 1;

/** The unit of a measure: of what is counted its own name. */
export function unit(measure: string): string {
  const words = MEASURES.get(measure);
  if (!words) return "";
  return words.unit === "itself" ? words.title : words.unit === "weight" ? shown : words.unit;
}

/** What a value of a measure is of: `sets`, `kg of volume load`. */
export function unitOf(measure: string): string {
  const words = MEASURES.get(measure);
  return !words || words.unit === "itself" ? unit(measure) : `${unit(measure)} of ${words.title}`;
}

export const measureTitle = (measure: string): string => MEASURES.get(measure)?.title ?? measure;
export const shortTitle = (measure: string): string => MEASURES.get(measure)?.short ?? measure;

/** A change as signed per cent: one decimal below ten. */
export function percent(share: number): string {
  const value = share * 100;
  return `${share < 0 ? "−" : "+"}${number(Math.abs(value), Math.abs(value) < 10 ? 1 : 0)}${THIN}%`;
}

/** A share done, as per cent without sign. */
export const share = (value: number | null): string =>
  value === null ? "–" : `${number(value * 100, 0)}${THIN}%`;

export function signed(value: number, measure: string): string {
  const text = amount(Math.abs(value), measure);
  if (text === "0") return "0";
  return (value < 0 ? "−" : "+") + text;
}

export const ratio = (value: number | null): string => (value === null ? "–" : value.toFixed(2));

/** A time as it is read: `90 s`, whole minutes from two on as `8 min`. */
export const time = (seconds: number): string =>
  seconds >= 120 && seconds % 60 === 0 ? `${number(seconds / 60)} min` : `${number(seconds)} s`;

const DAY = new Intl.DateTimeFormat("en-GB", { weekday: "short", day: "numeric", month: "short" });
const DATE = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });
const WEEKDAY = new Intl.DateTimeFormat("en-GB", { weekday: "long" });

const MOMENT = new Intl.DateTimeFormat("en-GB", {
  weekday: "short",
  day: "numeric",
  month: "short",
  hour: "2-digit",
  minute: "2-digit",
});

/** A moment that the server tells in UTC, where one is: `Fri 27 Nov, 14:05`. */
export const moment = (utc: string): string => MOMENT.format(new Date(utc));

// Days have no time zone; noon keeps them from slipping.
const at = (iso: string) => new Date(`${iso}T12:00:00`);

/** The day so many days after another, as `2026-11-30`. */
export function dayAfter(iso: string, days: number): string {
  const found = at(iso);
  found.setDate(found.getDate() + days);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${found.getFullYear()}-${two(found.getMonth() + 1)}-${two(found.getDate())}`;
}

export const day = (iso: string): string => DAY.format(at(iso));
export const date = (iso: string): string => DATE.format(at(iso));
export const weekday = (iso: string): string => WEEKDAY.format(at(iso));

/** From Monday to Sunday: `16–22 Nov 2026`, `28 Sep – 4 Oct 2026`. */
export function span(monday: string, sunday: string): string {
  return DATE.formatRange(at(monday), at(sunday)).replace(
    /\s–\s/,
    monday.slice(0, 7) === sunday.slice(0, 7) ? "–" : " – ",
  );
}

/** `2026-W47` as it is said: `Week 47`. */
export const weekName = (week: string): string => `Week ${Number(week.slice(6))}`;

export const KIND_WORDS: Record<NonNullable<Schemas["KindBody"]["kind"]>, string> = {
  lighter: "a lighter week",
  taper: "a taper",
  test: "a test week",
  overreach: "an overreach",
  travel: "a week away",
  race: "a race week",
  return: "a return",
  rehab: "rehab of a side",
  skill: "a week of practice",
  tempo: "a tempo week",
};

export const BASIS_WORDS: Record<Basis, string> = { completed: "done", planned: "planned" };

/** The Monday of a day's week. */
export function mondayOf(day: string): string {
  const weekday = new Date(`${day}T12:00:00`).getDay();
  return dayAfter(day, weekday === 0 ? -6 : 1 - weekday);
}

/** So many of something: `1 finding`, `3 findings`. */
export const count = (many: number, what: string): string =>
  `${number(many, 1)} ${what}${many === 1 ? "" : "s"}`;

/** What a goal, or a week on the way to it, asks for: `100 kg × 5`, `12 reps`, `90 s`. */
export function goalText(goal: {
  load_kg: number;
  reps: number | null;
  seconds: number | null;
}): string {
  const load = goal.load_kg > 0 ? `${weight(goal.load_kg)} × ` : "";
  if (goal.seconds !== null) return load + time(goal.seconds);
  return load ? `${load}${goal.reps ?? 0}` : count(goal.reps ?? 0, "rep");
}
