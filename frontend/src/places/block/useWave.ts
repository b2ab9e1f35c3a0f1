import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { wave as calls } from "@/api/block";
import { useChange } from "@/api/changes";
import type { Data } from "./useBlockWalk";

export type WaveWeek = Schemas["WaveWeekOut"];

const ASK_AFTER_MS = 200;

interface Found {
  weeks: Map<string, WaveWeek>;
  /** The week that is worked out now. */
  asking: string | null;
  error: string | null;
}

const NOTHING: Found = { weeks: new Map(), asking: null, error: null };

/** The block ahead proposed week by week, each with the ones before it done as proposed. */
export function useWave(athlete: number, data: Data | undefined, version: number) {
  const [open, setOpen] = useState(false);
  const [easeIn, setEaseIn] = useState(true);
  const [allOfIt, setAllOfIt] = useState(false);
  const [chosen, setChosen] = useState<Map<string, boolean>>(new Map());
  const [found, setFound] = useState<Found>(NOTHING);
  const [stopped, setStopped] = useState(false);
  const ahead = data?.weeks.filter((one) => !one.over) ?? [];
  const isLighter = (week: string) =>
    chosen.get(week) ?? ahead.some((one) => one.week === week && one.usually_lighter);
  // What is asked, as a text: an equal question is not asked again.
  const asked = ahead.map((one) => `${one.week}/${isLighter(one.week)}`).join(" ");

  useEffect(() => {
    if (!open || stopped || !asked) return undefined;
    const control = new AbortController();
    const ask = async () => {
      const before: Schemas["ProposedWeek"][] = [];
      const weeks = new Map<string, WaveWeek>();
      for (const [week = "", lighter] of asked.split(" ").map((one) => one.split("/"))) {
        setFound({ weeks: new Map(weeks), asking: week, error: null });
        const answer = await calls.propose(
          { athlete, week },
          { before: [...before], lighter: lighter === "true", ease_in: easeIn, all_of_it: allOfIt },
          control.signal,
        );
        if (control.signal.aborted) return;
        before.push({ week, sessions: answer.sessions });
        weeks.set(week, answer);
      }
      setFound({ weeks, asking: null, error: null });
    };
    const timer = setTimeout(() => {
      ask().catch((problem: unknown) => {
        if (!control.signal.aborted)
          setFound((now) => ({ ...now, asking: null, error: messageOf(problem) }));
      });
    }, ASK_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [athlete, asked, easeIn, allOfIt, open, stopped, version]);

  const all = ahead.flatMap((one) => found.weeks.get(one.week) ?? []);
  const publish = useChange(async () => {
    const [first] = all;
    if (!first) return;
    await calls.publish(
      { athlete, week: first.week },
      {
        state: first.state,
        weeks: all.map(({ week, sessions }) => ({ week, sessions })),
      },
    );
    setOpen(false);
  });
  return {
    open,
    toggle: () => {
      setOpen((now) => !now);
      setStopped(false);
      setFound(NOTHING);
    },
    stop: () => {
      setStopped(true);
      setFound((now) => ({ ...now, asking: null }));
    },
    easeIn,
    setEaseIn,
    allOfIt,
    setAllOfIt,
    isLighter,
    setLighter: (week: string, lighter: boolean) =>
      setChosen((now) => new Map(now).set(week, lighter)),
    ...found,
    complete: all.length > 0 && all.length === ahead.length && found.asking === null,
    publish,
  };
}

export type Wave = ReturnType<typeof useWave>;
