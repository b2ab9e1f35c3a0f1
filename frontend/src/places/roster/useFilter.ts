import { useMemo, useState } from "react";
import type { Schemas } from "@/api/client";

type Row = Schemas["RosterRow"];

export const FILTERS: { name: string; keeps: (row: Row, week: string) => boolean }[] = [
  { name: "All", keeps: () => true },
  {
    name: "Something open",
    keeps: (row) => row.counts.high + row.counts.caution + row.counts.note > 0,
  },
  { name: "Not logged", keeps: (row) => row.unlogged > 0 },
  { name: "Not logged today", keeps: (row) => row.open_today },
  { name: "Not signed", keeps: (row, week) => (row.signed_week ?? "") < week },
  {
    name: "Nothing open",
    keeps: (row) => row.counts.high + row.counts.caution + row.counts.note === 0,
  },
];

/** Which of the athletes are shown: by what is open, and by words. */
export function useFilter() {
  const [filter, setFilter] = useState({ at: 0, text: "", squad: "" });
  return useMemo(() => {
    const words = filter.text.toLowerCase().split(/\s+/).filter(Boolean);
    return {
      ...filter,
      isOff: filter.text === "" && filter.at === 0 && filter.squad === "",
      put: (part: Partial<typeof filter>) => setFilter((now) => ({ ...now, ...part })),
      keeps: (data: Schemas["Roster"] | undefined) =>
        (data?.athletes ?? []).filter(
          (row) =>
            FILTERS[filter.at]?.keeps(row, data?.week ?? "") &&
            (filter.squad === "" || row.squad === filter.squad) &&
            words.every((word) =>
              `${row.name} ${row.squad} ${row.note} ${row.first ?? ""}`
                .toLowerCase()
                .includes(word),
            ),
        ),
    };
  }, [filter]);
}

export type Filter = ReturnType<typeof useFilter>;
