import type { Level, Schemas } from "@/api/client";
import type { WaveWeek } from "./useWave";

type BlockWeek = Schemas["BlockWeek"];
type Finding = Schemas["BlockFinding"];

/** A finding in a week: there, cleared by the proposal, or raised in it. */
export interface Mark {
  level: Level;
  state: "open" | "cleared" | "stays";
  says: string;
}

/** A finding over the weeks of a block; a week without it has no mark. */
export interface FindingRow {
  key: string;
  subject: string;
  title: string;
  label: string;
  measure: string;
  marks: (Mark | null)[];
}

const WEIGHT: Record<Level, number> = { high: 3, caution: 2, note: 1 };

/** The findings of all weeks side by side: as they are, or, where a week is proposed, as they go. */
export function findingRows(weeks: BlockWeek[], proposed: Map<string, WaveWeek>): FindingRow[] {
  const rows = new Map<string, FindingRow>();
  weeks.forEach((week, at) => {
    const own = proposed.get(week.week);
    const found: (Finding & { before?: boolean; left?: boolean; why?: string })[] =
      own?.findings ?? week.findings;
    for (const one of found) {
      const key = `${one.code}/${one.subject}/${one.measure}`;
      const row = rows.get(key) ?? {
        key,
        subject: one.subject,
        title: one.title,
        label: one.label,
        measure: one.measure,
        marks: weeks.map(() => null),
      };
      rows.set(key, row);
      row.marks[at] = {
        level: one.level,
        state: own === undefined ? "open" : one.left ? "stays" : "cleared",
        says: one.why || one.sentence,
      };
    }
  });
  const weight = (row: FindingRow) =>
    row.marks.reduce((sum, mark) => sum + (mark ? WEIGHT[mark.level] : 0), 0);
  return [...rows.values()].sort((one, two) => weight(two) - weight(one));
}

/** What a week begins with, where it is not its plan. */
export function shapeWords(week: WaveWeek): string {
  switch (week.shape) {
    case "lighter":
      return "lighter";
    case "return":
      return `low, after ${week.weeks_off ?? 0} weeks off`;
    case "rise":
      return "rises within the limit";
    default:
      return "";
  }
}
