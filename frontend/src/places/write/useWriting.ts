import { useCallback, useState } from "react";
import { newId } from "@/api/id";
import { type WeekPlace } from "@/api/place";
import { type Copy, dropLeft, leftBehind, typedHere } from "./device";
import { type Sheet, deskOf, same } from "./sheet";
import { useChecked } from "./useChecked";
import { useSaving } from "./useSaving";

/** Typed on this device and not stored, while the session was changed elsewhere. */
export interface Aside {
  copy: Copy;
  /** Where another window left it; null if it is this window's own. */
  key: string | null;
}

/** A session in hand: checked as it is typed, kept and stored, with what was typed before. */
export function useWriting(place: WeekPlace, opened: Sheet, stored: (sheet: Sheet) => void) {
  const [start] = useState(() => begin(place, opened));
  const [aside, setAside] = useState<Aside | null>(start.aside);
  const { sheet, saving, unsaved, put, forget } = useSaving(place, opened, start, stored);
  const { answer, isFresh, error } = useChecked(place, sheet);

  /** Use what was typed before, or let go of it. */
  const decide = useCallback(
    (mine: boolean) => {
      if (!aside) return;
      if (mine) put({ text: aside.copy.text, title: aside.copy.title });
      if (aside.key === null && !mine) forget();
      if (aside.key !== null) dropLeft(aside.key);
      setAside(null);
    },
    [aside, put, forget],
  );

  return { sheet, answer, isFresh, error: unsaved ?? error, saving, put, aside, decide };
}

/** What one begins with: the session as it is stored, or as this window typed it last. */
function begin(
  place: WeekPlace,
  opened: Sheet,
): { sheet: Sheet; aside: Aside | null; client: string } {
  const name = deskOf(opened);
  const own = typedHere(place, name);
  if (own && !same(own, opened)) {
    const goesOn = own.revision === opened.revision;
    if (goesOn)
      return {
        sheet: { ...opened, date: own.date, title: own.title, text: own.text },
        aside: null,
        client: own.client,
      };
    return { sheet: opened, aside: { copy: own, key: null }, client: own.client };
  }
  const left = leftBehind(place, name);
  const aside = left && !same(left.copy, opened) ? left : null;
  return { sheet: opened, aside, client: own?.client ?? newId() };
}
