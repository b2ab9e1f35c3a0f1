import { useState } from "react";
import { changes } from "@/api/journal";
import { type WeekPlace } from "@/api/place";
import { writing } from "@/api/write";
import { day } from "@/words";
import { usePlanChanged } from "./useSaving";
import type { Sheet } from "./sheet";

interface Made {
  change: number;
  says: string;
}

/** The days of a text made sessions of their own, and all of it taken back. */
export function useDaysApart(
  place: WeekPlace,
  days: string[],
  shown: { again: () => Promise<void>; open: (session: string) => void; close: () => void },
) {
  const [made, setMade] = useState<Made | null>(null);
  const planChanged = usePlanChanged();
  const make = async (sheet: Sheet) => {
    if (sheet.id === null) return;
    const done = await writing.days(place, sheet.id, sheet.revision);
    const here = done.sessions.filter((one) => days.includes(one.date));
    const elsewhere = done.sessions.filter((one) => !here.includes(one));
    setMade({ change: done.change, says: told(done.sessions.length, elsewhere) });
    await shown.again();
    const [first] = here;
    if (first) shown.open(String(first.id));
    else shown.close();
    await planChanged();
  };
  const takeBack = async () => {
    if (!made) return;
    await changes.undo({ id: made.change });
    setMade(null);
    await shown.again();
    shown.close();
    await planChanged();
  };
  return { made, make, takeBack };
}

function told(count: number, elsewhere: { date: string }[]): string {
  const made = count === 1 ? "Moved to its day" : `${count} sessions made from one text`;
  if (elsewhere.length === 0) return `${made}.`;
  return `${made}; not in this week: ${elsewhere.map((one) => day(one.date)).join(", ")}.`;
}
