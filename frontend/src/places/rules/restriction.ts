import { keptWeight } from "@/words";

export type About = "movement" | "pattern" | "muscle" | "tempo";

export const ABOUT: Record<About, string> = {
  movement: "a movement",
  pattern: "a pattern",
  muscle: "a muscle",
  tempo: "a phase of the tempo",
};

/** What was said of a restriction, as it is typed. */
export interface Said {
  about: About;
  how: "avoid" | "limit";
  subject: string;
  most_sets: string;
  most_load_kg: string;
  least_s: string;
  most_s: string;
  by: string;
  word: string;
  since: string;
  /** Its last day, where whoever set it has said one. */
  until: string;
}

export const nothingSaid = (today: string): Said => ({
  about: "movement",
  how: "avoid",
  subject: "",
  most_sets: "",
  most_load_kg: "",
  least_s: "",
  most_s: "",
  by: "",
  word: "",
  since: today,
  until: "",
});

const inKg = (typed: number | null) => (typed === null ? null : keptWeight(typed));
const number = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));

/** The limits as numbers; all null for what is to be avoided. */
export function limitsOf(said: Said) {
  const none = { most_sets: null, most_load_kg: null, least_s: null, most_s: null };
  if (said.about === "tempo")
    return { ...none, least_s: number(said.least_s), most_s: number(said.most_s) };
  if (said.how === "avoid") return none;
  return {
    ...none,
    most_sets: number(said.most_sets),
    most_load_kg: inKg(number(said.most_load_kg)),
  };
}

/** Whether enough is said to set it. */
export function isReady(said: Said): boolean {
  const isLimited = said.about === "tempo" || said.how === "limit";
  return (
    said.subject.trim() !== "" &&
    said.by.trim() !== "" &&
    (!isLimited || Object.values(limitsOf(said)).some((limit) => limit !== null))
  );
}
