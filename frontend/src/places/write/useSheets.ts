import { useCallback, useEffect, useRef, useState } from "react";
import { useNavigationType, useSearchParams } from "react-router";
import type { WeekPlace } from "@/api/place";
import { forgetNumber, numberOf } from "./device";
import type { Sheet } from "./sheet";

/** The week's sessions, and which of them is in hand: the address says. */
export function useSheets(place: WeekPlace, rows: Sheet[], reload: () => Promise<Sheet[]>) {
  const [sheets, setSheets] = useState<Sheet[]>(rows);
  const [params, setParams] = useSearchParams();
  const addressed = params.get("session");
  const cameBack = useNavigationType() === "POP";
  // Whoever left a new session before it had its number comes back to it, not to another new one.
  const chosen = (cameBack && addressed && numberOf(place, addressed)) || addressed;
  useEffect(() => {
    if (!cameBack && addressed?.startsWith("new-")) forgetNumber(place, addressed);
  }, [cameBack, addressed, place]);
  const fresh = chosen?.startsWith("new-") ? chosen.slice(4) : null;
  const current: Sheet | undefined = fresh
    ? { id: null, date: fresh, title: "", text: "", revision: 0 }
    : (sheets.find((one) => String(one.id) === chosen) ?? sheets[0]);
  // Whoever leaves and comes back at once may be told of a session that was stored meanwhile.
  const [asked, setAsked] = useState<string | null>(null);
  const isUnknown =
    chosen !== null &&
    fresh === null &&
    asked !== chosen &&
    !sheets.some((one) => String(one.id) === chosen);
  const again = useRef(reload);
  useEffect(() => {
    again.current = reload;
  });
  useEffect(() => {
    if (!isUnknown) return;
    void again.current().then((found) => {
      setSheets(found);
      setAsked(chosen);
    });
  }, [isUnknown, chosen]);
  // A session that is stored for the first time gets a number; the desk it is written on stays.
  const [born, setBorn] = useState<Record<number, string>>({});
  const put = useCallback(
    (sheet: Sheet) => {
      setSheets((all) =>
        [...all.filter((one) => one.id !== sheet.id), sheet].sort((a, b) =>
          a.date.localeCompare(b.date),
        ),
      );
      if (fresh && sheet.id !== null) {
        const { id } = sheet;
        setBorn((all) => ({ ...all, [id]: `new-${fresh}` }));
        // Only if one is still there: a save may end after somebody has gone on to another session.
        setParams(
          (now) => (now.get("session") === `new-${fresh}` ? withSession(now, String(id)) : now),
          { replace: true },
        );
      }
    },
    [fresh, setParams],
  );
  const open = (session: string) =>
    setParams((now) => withSession(now, session), { replace: true });
  const close = useCallback(() => setParams({}, { replace: true }), [setParams]);
  const drop = useCallback(
    (sheet: Sheet) => setSheets((all) => all.filter((one) => one.id !== sheet.id)),
    [],
  );
  const refresh = useCallback(async () => setSheets(await again.current()), []);
  const desk =
    current && (current.id === null ? `new-${current.date}` : (born[current.id] ?? current.id));
  return { sheets, current, desk, isUnknown, open, close, put, drop, again: refresh };
}

function withSession(now: URLSearchParams, session: string): URLSearchParams {
  const next = new URLSearchParams(now);
  next.set("session", session);
  return next;
}
