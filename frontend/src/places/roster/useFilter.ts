import { useMemo } from "react";
import type { Schemas } from "@/api/client";
import { useAddress, useTyped } from "@/frame/useAddress";

type Row = Schemas["RosterRow"];

/** Which athletes are shown, with the word that the address has for it. */
export const FILTERS: { name: string; word: string; keeps: (row: Row, week: string) => boolean }[] =
  [
    { name: "All", word: "", keeps: () => true },
    {
      name: "Something open",
      word: "open",
      keeps: (row) => row.counts.high + row.counts.caution + row.counts.note > 0,
    },
    { name: "Not logged", word: "not-logged", keeps: (row) => row.unlogged > 0 },
    { name: "Not logged today", word: "not-logged-today", keeps: (row) => row.open_today },
    {
      name: "Not signed",
      word: "not-signed",
      keeps: (row, week) => (row.signed_week ?? "") < week,
    },
    {
      name: "Nothing open",
      word: "nothing-open",
      keeps: (row) => row.counts.high + row.counts.caution + row.counts.note === 0,
    },
  ];

/** Which of the athletes are shown: by what is open, and by words. The address keeps it. */
export function useFilter() {
  const { params, put, clear } = useAddress();
  const [text, type] = useTyped("find");
  return useMemo(() => {
    const show = params.get("show") ?? "";
    const squad = params.get("squad") ?? "";
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const chosen = FILTERS.find((one) => one.word === show) ?? FILTERS[0];
    return {
      show: chosen?.word ?? "",
      text,
      squad,
      isOff: text === "" && chosen?.word === "" && squad === "",
      put,
      type,
      clear: () => {
        type("");
        clear();
      },
      keeps: (data: Schemas["Roster"] | undefined) =>
        (data?.athletes ?? []).filter(
          (row) =>
            chosen?.keeps(row, data?.week ?? "") &&
            (squad === "" || row.squad === squad) &&
            words.every((word) =>
              `${row.name} ${row.squad} ${row.note} ${row.first ?? ""}`
                .toLowerCase()
                .includes(word),
            ),
        ),
    };
  }, [params, put, clear, text, type]);
}

export type Filter = ReturnType<typeof useFilter>;
