import { useState } from "react";
import { Beside } from "./Beside";
import { Cautions } from "./Cautions";
import { Hurts } from "./Hurts";
import { LetIn } from "./LetIn";
import { Over } from "./Over";
import { RunSetSheet } from "./RunSetSheet";
import { Station } from "./Station";
import { TopLine } from "./TopLine";
import { Unwatched } from "./Unwatched";
import { act } from "./acts";
import { jump } from "./clock";
import {
  type Editing,
  type Together,
  again,
  edit,
  goesOn,
  keepMinutes,
  leader,
  planned,
  stopped,
  tick,
  wanted,
} from "./run";
import { useCalls } from "./useCalls";
import { useRun, useWakeLock } from "./useRun";
import { measured, useSensor } from "./useSensor";

/** The screen of a run: what is to be done now, by whom, and what comes next. */
export function OnTheFloor({ plans, data }: { plans: string; data: Together }) {
  const { runs } = data;
  const { state, now, change, setClock } = useRun(plans, runs);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [hurts, setHurts] = useState(false);
  const [sensor, setSensor] = useState(false);
  const lead = leader(runs);
  const clock = state?.clock;
  const set = state && clock ? planned(lead, state.steps, clock.step) : undefined;
  const usual = data.movements.find((one) => one.name === set?.set.exercise)?.tempo ?? "2-0-1-0";
  const tempo = set?.set.tempo ?? usual;
  const sees = data.sensor && runs.length === 1;
  const sensing = sensor && sees;
  const works = clock?.phase === "work" && clock.paused === null;
  const sensed = useSensor(sensing, works, clock?.step ?? 0, set, tempo);
  useWakeLock(Boolean(state?.begun) && clock?.phase !== "over");
  useCalls(state, now, runs);
  if (!state || !clock) return <p className="p-6 text-ink-2">Loading the session…</p>;
  if (!state.begun)
    return (
      <Cautions
        runs={runs}
        caution={data.caution}
        now={now}
        begin={() =>
          change((all) => ({ ...all, begun: true, startedAt: all.startedAt ?? Date.now() }))
        }
      />
    );
  return (
    <div className="run grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_24rem] overflow-auto bg-sheet max-md:flex max-md:flex-col">
      <main className="flex min-h-0 flex-col px-8 pt-3 pb-5 max-md:shrink-0 max-md:px-4">
        <TopLine runs={runs} />
        {state.unseen ? (
          <Unwatched runs={runs} state={state} unseen={state.unseen} change={change} />
        ) : clock.phase === "over" ? (
          <Over
            runs={runs}
            state={state}
            again={() => change((all) => again(all, runs, Date.now()))}
            take={(step) => setClock(() => jump(step, Date.now()))}
            keep={(minutes) => change((all) => keepMinutes(all, minutes))}
          />
        ) : (
          set && (
            <Station
              runs={runs}
              movements={data.movements}
              state={state}
              set={set}
              now={now}
              sensing={sensing}
              watch={sees ? { on: sensor, put: setSensor, sensed, tempo } : null}
              act={(does) =>
                change((all) =>
                  act(all, runs, does, Date.now(), sensing ? measured(sensed.taken()) : null),
                )
              }
              change={change}
              setClock={setClock}
              hurts={() => setHurts(true)}
            />
          )
        )}
        {clock.phase !== "over" && <LetIn runs={runs} state={state} className="md:hidden" />}
      </main>
      <Beside
        runs={runs}
        movements={data.movements}
        state={state}
        open={(run, step) => setEditing(edit(state, run.athlete, step))}
        tick={(run, line) => change((all) => tick(all, run.athlete, line))}
        goOn={(run) => change((all) => goesOn(all, run.athlete))}
        take={(step) => setClock(() => jump(step, Date.now()))}
      />
      {editing && (
        <RunSetSheet
          data={data}
          state={state}
          editing={editing}
          change={change}
          close={() => setEditing(null)}
        />
      )}
      {hurts && (
        <Hurts
          runs={runs.filter((one) => !state.own[one.athlete]?.stopped)}
          movement={wanted(lead, state, clock.step)?.movement ?? null}
          close={() => setHurts(false)}
          stop={(athlete, note) => change((all) => stopped(all, runs, athlete, note, Date.now()))}
        />
      )}
    </div>
  );
}
