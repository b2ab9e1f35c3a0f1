import { useState } from "react";
import { block } from "@/api/block";
import { useChange } from "@/api/changes";
import type { Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { NONE } from "./ChangeFields";
import type { Session } from "./useBlockWalk";

/** A session that was copied or is to be moved. */
export type Held = { session: Session; move: boolean };

/** Sessions laid on other days: by hand, or copied and moved with the keys. */
export function useHeld(
  place: WeekPlace,
  here: Session | undefined,
  date: string | undefined,
  tell: (remarks: string[]) => void,
) {
  const [held, setHeld] = useState<Held | null>(null);
  const change = useChange(async (body: Schemas["LayBody"]) => {
    tell((await block.lay(place, body)).remarks ?? []);
  });
  const paste = () => {
    if (!held || !date || date === held.session.date) return;
    change.mutate({
      sessions: [held.session.id],
      shifts: [],
      to: date,
      change: NONE,
      move: held.move,
      lighter: false,
    });
    if (held.move) setHeld(null);
  };
  const take = (move: boolean) => () => here && setHeld({ session: here, move });
  return { held, change, keys: { copy: take(false), cut: take(true), paste } };
}
