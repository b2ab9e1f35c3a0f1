import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { newId } from "@/api/id";
import { inWindow } from "@/api/remember";
import { type Clock, advance } from "./clock";
import { loadRun, post, saveRun } from "@/api/outbox";
import {
  JOINING,
  type Run,
  type State,
  fresh,
  joined,
  leader,
  logOf,
  markDone,
  pastDone,
  plansOf,
} from "./run";
import { type Look, hold, lapse, lookNow, setBack, unseenIn } from "./unseen";

const LOOK_MS = 100;

const LOOKED = "dialback.looked";

/** Note on the device that somebody looks. */
const keepLook = (key: string, wall: number) => inWindow.set(`${LOOKED}/${key}`, String(wall));

/** The last look before the page was loaded; long ago where nobody knows. */
function leftAt(key: string): Look {
  const [now, wall] = [lookNow(), Number(inWindow.get(`${LOOKED}/${key}`) ?? 0)];
  return { wall, mono: now.mono - (now.wall - wall) };
}

/** A run that survives a reload: its state is kept at every tap, its logs go into the outbox. */
export function useRun(key: string, runs: Run[]) {
  const [state, setState] = useState<State | null>(null);
  const [now, setNow] = useState(() => Date.now());
  const latest = useRef<State | null>(null);
  const lastLook = useRef<Look | null>(null);

  const put = useCallback(
    (next: State) => {
      const before = latest.current;
      latest.current = next;
      setState(next);
      void saveRun(key, next);
      for (const run of runs) {
        const mine = next.own[run.athlete];
        if (!mine || mine === before?.own[run.athlete]) continue;
        void post({
          id: mine.id,
          athlete: run.athlete,
          name: run.name,
          body: {
            change: newId(),
            revision: mine.revision,
            plan: run.plan,
            session: logOf(run, mine),
          },
        });
      }
    },
    [key, runs],
  );

  useEffect(() => {
    let gone = false;
    loadRun<State>(key).then((kept) => {
      if (gone) return;
      // Over a plan that was written anew the run begins anew, behind what is logged already.
      const next =
        kept?.plans === JOINING
          ? joined(kept, runs, Date.now())
          : kept?.plans === plansOf(runs)
            ? kept
            : fresh(runs, Date.now());
      // Between two loads of the page the last look is the one before it went.
      lastLook.current = next === kept ? leftAt(key) : null;
      latest.current = next;
      setState(next);
    });
    return () => {
      gone = true;
    };
  }, [key, runs]);

  // The time is looked at; it is never counted. What passed while nobody looked is asked about.
  useEffect(() => {
    const look = () => {
      const here = latest.current;
      // A page that nobody sees is no look.
      if (document.hidden || !here) return;
      const [before, at] = [lastLook.current, lookNow()];
      lastLook.current = at;
      setNow(at.wall);
      keepLook(key, at.wall);
      if (!here.begun || here.unseen) return;
      const sets = leader(runs).sets;
      const how = before ? lapse(before, at) : "seen";
      const start = before && how === "set back" ? setBack(here.clock, before, at) : here.clock;
      if (before && how === "unseen" && start.paused === null) {
        const unseen = unseenIn(start, before.wall, at.wall, here.steps, sets);
        if (unseen) {
          put(hold(here, unseen));
          return;
        }
      }
      const { clock, ended } = advance(start, at.wall, here.steps, sets);
      if (clock === here.clock) return;
      const done = ended.reduce((all, step) => markDone(all, runs, step), here);
      const next = { ...done, clock };
      put(ended.length > 0 ? pastDone(next, runs, at.wall) : next);
    };
    const timer = setInterval(look, LOOK_MS);
    document.addEventListener("visibilitychange", look);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, [key, put, runs]);

  const change = useCallback(
    (how: (state: State) => State) => {
      if (latest.current) put(how(latest.current));
    },
    [put],
  );
  const setClock = useCallback(
    (how: (clock: Clock, sets: Schemas["FloorSet"][]) => Clock) => {
      change((all) => ({ ...all, clock: how(all.clock, leader(runs).sets) }));
    },
    [change, runs],
  );
  return { state, now, change, setClock };
}

/** Keep the screen awake while something runs, where the browser lets one. */
export function useWakeLock(on: boolean): void {
  useEffect(() => {
    if (!on || !("wakeLock" in navigator)) return undefined;
    let lock: WakeLockSentinel | null = null;
    const ask = () => {
      if (document.visibilityState === "visible")
        navigator.wakeLock.request("screen").then(
          (got) => {
            lock = got;
          },
          () => undefined,
        );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [on]);
}
