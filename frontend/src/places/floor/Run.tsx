import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useFloorRuns } from "@/api/floor";
import { DialogSheet } from "@/frame/DialogSheet";
import { Failure } from "@/frame/Failure";
import { weekPath } from "@/frame/places";
import { date } from "@/words";
import { BoxState } from "./BoxState";
import { SetSheet } from "./SetSheet";
import {
  begin,
  elapsed,
  face,
  finish,
  jump,
  lasts,
  length,
  oneMore,
  pause,
  skipRest,
} from "./clock";
import {
  type Editing,
  type Run as Part,
  type State,
  type Together,
  asBefore,
  changed,
  edit,
  fresh,
  insertSteps,
  leader,
  markDone,
  planned,
  putSet,
  toCome,
  together,
  told,
  wanted,
} from "./run";
import { isMuted, setMuted, tone } from "./sound";
import { useRun, useWakeLock } from "./useRun";
import { measured, useSensor } from "./useSensor";

/** A session on the floor, for one athlete or for a group by one clock. */
export function Run() {
  const [params] = useSearchParams();
  const plans = (params.get("plans") ?? "")
    .split(",")
    .map(Number)
    .filter((one) => one > 0);
  const found = useFloorRuns(plans);
  const data = useMemo(() => found.data && together(found.data), [found.data]);
  if (found.error) return <Failure error={found.error} />;
  if (!data) return <p className="p-6 text-ink-2">Laying out the session…</p>;
  if (data.runs.length === 0)
    return (
      <p className="p-6">
        No session is chosen.{" "}
        <Link to="/floor" className="trail-link">
          Choose one on the Floor
        </Link>
        .
      </p>
    );
  return <OnTheFloor key={plans.join(",")} plans={plans.join(",")} data={data} />;
}

const WORDS = { ready: "ready", "count-in": "get ready", work: "work", rest: "rest", over: "done" };

function OnTheFloor({ plans, data }: { plans: string; data: Together }) {
  const { runs } = data;
  const { state, now, change, setClock } = useRun(plans, runs);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [hurts, setHurts] = useState(false);
  const [sensor, setSensor] = useState(false);
  const [muted, mute] = useState(isMuted);
  const lead = leader(runs);
  const clock = state?.clock;
  const set = state && clock ? planned(lead, state.steps, clock.step) : undefined;
  const usual = data.movements.find((one) => one.name === set?.set.exercise)?.tempo ?? "2-0-1-0";
  const sensing = sensor && runs.length === 1;
  const sensed = useSensor(
    sensing,
    clock?.phase === "work" && clock.paused === null,
    clock?.step ?? 0,
    set,
    set?.set.tempo ?? usual,
  );
  useWakeLock(Boolean(state?.begun) && clock?.phase !== "over");
  useTones(state, now, lead);
  if (!state || !clock) return <p className="p-6 text-ink-2">Opening the session…</p>;
  if (!state.begun)
    return (
      <Cautions
        runs={runs}
        caution={data.caution}
        begin={() => change((all) => ({ ...all, begun: true }))}
      />
    );
  const { steps } = state;
  const seconds = lasts(clock, steps, lead.sets);
  const gone = elapsed(clock, now);
  const left = seconds === null ? null : Math.max(0, seconds - gone);
  const shown = wanted(
    lead,
    state,
    clock.phase === "rest" && clock.step + 1 < steps.length ? clock.step + 1 : clock.step,
  );
  const both = set?.set.sides === "each" && length(set) !== null && clock.phase === "work";
  /** The step whose sets are corrected: the one in hand, or in a rest the one just done. */
  const done = () => {
    const at = Date.now();
    change((all) => {
      let next = markDone(all, runs, all.clock.step);
      const seen = measured(sensed.taken());
      const [only] = runs;
      if (sensing && seen && only) {
        const mine = next.own[only.athlete]?.done[all.clock.step];
        if (mine)
          next = putSet(next, only.athlete, all.clock.step, {
            ...mine,
            reps: seen.reps,
            measured_reps: seen.reps,
            measured_tension_s: seen.tension,
          });
      }
      return { ...next, clock: finish(all.clock, at, all.steps, lead.sets) };
    });
  };
  const go = () =>
    setClock((all, sets) => begin(all, Date.now(), sets[steps[all.step]?.set ?? -1]));
  const act =
    clock.paused !== null
      ? () => setClock((all) => pause(all, Date.now()))
      : clock.phase === "ready"
        ? length(set) === null && !sensing
          ? done
          : go
        : clock.phase === "work"
          ? done
          : clock.phase === "rest"
            ? () => setClock((all, sets) => skipRest(all, Date.now(), steps, sets))
            : clock.phase === "count-in"
              ? () => setClock((all) => ({ ...all, phase: "work", since: Date.now() }))
              : null;
  const asIs = runs.some((run) => state.own[run.athlete]?.ahead[clock.step])
    ? "Done as changed"
    : "Done as planned";
  const says =
    clock.paused !== null
      ? "Go on"
      : clock.phase === "ready"
        ? length(set) !== null
          ? "Start the clock"
          : sensing
            ? "Start the set"
            : asIs
        : clock.phase === "work"
          ? asIs
          : clock.phase === "rest"
            ? "On, without more rest"
            : "Start now";
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_24rem] overflow-auto bg-sheet max-md:flex max-md:flex-col">
      <main className="flex min-h-0 flex-col px-8 pt-3 pb-5 max-md:shrink-0 max-md:px-4">
        <div className="flex items-baseline gap-4 text-ink-2">
          <Link to="/floor" className="trail-link">
            Floor
          </Link>
          <span className="truncate">
            {lead.title}
            {runs.length === 1 ? `, ${lead.name}` : ""}
          </span>
          <span className="ml-auto flex items-baseline gap-4">
            <BoxState />
            <button
              type="button"
              aria-pressed={muted}
              className="trail-link min-h-6 text-sm"
              onClick={() => {
                setMuted(!muted);
                mute(!muted);
              }}
            >
              {muted ? "Sound off" : "Sound on"}
            </button>
          </span>
        </div>
        {clock.phase === "over" ? (
          <Over
            runs={runs}
            state={state}
            again={() =>
              change(() => ({
                ...fresh(
                  runs.map((one) => ({ ...one, log: null })),
                  Date.now(),
                ),
                begun: true,
              }))
            }
            back={() => setClock((all) => jump(Math.max(0, all.step), Date.now()))}
          />
        ) : (
          set && (
            <>
              <p className="mt-2 text-lg text-ink-2">
                {set.part && <span className="font-semibold text-ink">{set.part}</span>}
                {set.round !== null &&
                  ` round ${set.round}${steps[clock.step]?.extra ? " again" : ""} of ${set.rounds}`}
                <span className={set.part || set.round !== null ? "ml-3" : ""}>
                  set {clock.step + 1} of {steps.length}
                </span>
              </p>
              <h1 className="mt-1 text-[3.25rem] leading-[1.05] font-semibold max-md:text-[2.25rem]">
                {shown?.movement}
              </h1>
              <p className="mt-1 text-3xl max-md:text-2xl">
                {shown &&
                  [shown.says, shown.set.tempo && `tempo ${shown.set.tempo}`]
                    .filter(Boolean)
                    .join(", ")}
                {both && (
                  <span className="ml-3 text-caution">
                    {gone < (set.seconds ?? 0) ? "first side" : "other side"}
                  </span>
                )}
              </p>
              <div role="timer" aria-label="Clock" className="mt-auto flex items-baseline gap-6">
                <span
                  className={`text-[9rem] leading-none font-semibold tabular-nums max-md:text-[6.5rem] ${clock.phase === "rest" ? "text-ink-2" : ""}`}
                >
                  {clock.phase === "ready"
                    ? "–:––"
                    : left === null
                      ? face(gone, false)
                      : face(left, true)}
                </span>
                <span className="text-3xl text-ink-2 max-md:text-xl">
                  {clock.paused !== null
                    ? "paused"
                    : clock.phase === "rest"
                      ? "rest, then this"
                      : WORDS[clock.phase]}
                </span>
              </div>
              {runs.length === 1 && (
                <p className="mt-2 min-h-6 text-ink-2">
                  <label className="inline-flex min-h-6 items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-4 accent-ink"
                      checked={sensor}
                      onChange={(event) => setSensor(event.target.checked)}
                    />
                    Sensor (simulated)
                  </label>
                  {sensor && (
                    <SensorLine
                      reps={sensed.reps}
                      planned={set.set.tempo ?? usual}
                      problem={sensed.problem}
                    />
                  )}
                </p>
              )}
              <button
                type="button"
                className="ink-button mt-3 h-20 text-2xl font-semibold"
                onClick={act ?? undefined}
              >
                {says}
              </button>
              <div className="mt-3 grid grid-cols-4 gap-3 max-md:grid-cols-2">
                <Big
                  act={() => setClock((all) => pause(all, Date.now()))}
                  off={clock.phase === "ready" && clock.paused === null}
                >
                  {clock.paused === null ? "Pause" : "Go on"}
                </Big>
                <Big
                  act={() =>
                    setClock((all) =>
                      jump(Math.max(0, all.step - (all.phase === "ready" ? 1 : 0)), Date.now()),
                    )
                  }
                  off={clock.step === 0 && clock.phase === "ready"}
                >
                  Back
                </Big>
                <Big act={() => change((all) => skip(all, runs))}>Skip</Big>
                <Big
                  act={() =>
                    change((all) => {
                      const more = oneMore(all.steps, all.clock.step, lead.sets);
                      return insertSteps(all, more, lastOf(all.steps, more));
                    })
                  }
                >
                  {set.round === null ? "One more set" : "One more round"}
                </Big>
              </div>
              {/* Within reach of the thumb, however many athletes stand below. */}
              <div className="mt-3 flex gap-3">
                <button
                  type="button"
                  className="key-button h-12 flex-1 border-high text-lg text-high"
                  onClick={() => setHurts(true)}
                >
                  Stop: something hurts
                </button>
                <button
                  type="button"
                  className="key-button h-12 px-6 text-lg"
                  onClick={() =>
                    setClock((all) => ({ ...all, phase: "over", paused: null, since: Date.now() }))
                  }
                >
                  Stop here
                </button>
              </div>
            </>
          )
        )}
      </main>
      <aside
        aria-label="Athletes and what is next"
        // On a phone the loads of a group stand first: they are what is called out.
        className={`flex min-h-0 flex-col overflow-auto border-l border-rule bg-paper px-5 pt-3 pb-5 max-md:shrink-0 max-md:overflow-visible max-md:border-l-0 ${runs.length > 1 ? "max-md:order-first max-md:border-b" : "max-md:border-t"}`}
      >
        <ul>
          {runs.map((run) => (
            <Athlete
              key={run.athlete}
              run={run}
              state={state}
              many={runs.length > 1}
              open={(step) => setEditing(edit(state, run.athlete, step))}
            />
          ))}
        </ul>
        {clock.phase !== "over" && (
          <>
            <h2
              className={`mt-4 text-sm text-ink-2 italic ${runs.length > 1 ? "max-md:hidden" : ""}`}
            >
              Next
            </h2>
            <ol className={`text-lg ${runs.length > 1 ? "max-md:hidden" : ""}`}>
              {[1, 2, 3, 4]
                .map((ahead) => wanted(lead, state, clock.step + ahead))
                .map(
                  (one, at) =>
                    one && (
                      // The same set may come twice: its place is its name.
                      <li
                        key={at}
                        className="flex justify-between gap-3 border-b border-hair py-0.5"
                      >
                        <span className="truncate">{one.movement}</span>
                        <span className="shrink-0 text-ink-2">{one.says}</span>
                      </li>
                    ),
                )}
            </ol>
          </>
        )}
      </aside>
      {editing &&
        (() => {
          const run = runs.find((one) => one.athlete === editing.athlete);
          const due = run && wanted(run, state, editing.step);
          const mine = state.own[editing.athlete]?.done[editing.step];
          return (
            run &&
            due && (
              <SetSheet
                key={`${editing.athlete}/${editing.step}`}
                name={run.name}
                set={mine ?? due.set}
                isDone={mine !== undefined}
                movements={data.movements}
                names={data.names}
                close={() => setEditing(null)}
                toCome={toCome(run, state, editing.step).length}
                back={() => change((all) => asBefore(all, run, editing))}
                put={(next, further) => {
                  const loads =
                    data.movements.find((one) => one.name === next?.exercise)?.loads ?? [];
                  change((all) => changed(all, run, editing, next, further, loads));
                }}
              />
            )
          );
        })()}
      {hurts && (
        <Hurts
          runs={runs.filter((one) => !state.own[one.athlete]?.stopped)}
          movement={wanted(lead, state, clock.step)?.movement ?? null}
          close={() => setHurts(false)}
          stop={(athlete, note) => change((all) => stopped(all, runs, athlete, note))}
        />
      )}
    </div>
  );
}

/** The last step that stands before the new ones. */
function lastOf(before: { extra: boolean }[], after: { extra: boolean }[]): number {
  const more = after.length - before.length;
  let at = 0;
  while (at < before.length && after[at] === before[at]) at += 1;
  return more > 0 ? at - 1 : before.length - 1;
}

function skip(state: State, runs: Part[]): State {
  const step = state.clock.step;
  const left = runs.reduce(
    (all, run) =>
      all.own[run.athlete]?.done[step] === undefined ? putSet(all, run.athlete, step, null) : all,
    state,
  );
  const last = step >= state.steps.length - 1;
  return {
    ...left,
    clock: last
      ? { step, phase: "over", since: Date.now(), paused: null }
      : jump(step + 1, Date.now()),
  };
}

function stopped(state: State, runs: Part[], athlete: number, note: string): State {
  const mine = state.own[athlete];
  const run = runs.find((one) => one.athlete === athlete);
  if (!mine || !run) return state;
  const exercise = wanted(run, state, state.clock.step)?.set.exercise ?? null;
  const own = {
    ...state.own,
    [athlete]: { ...mine, stopped: true, pain: [...mine.pain, { exercise, note }] },
  };
  const all = runs.every((run) => own[run.athlete]?.stopped);
  return {
    ...state,
    own,
    clock: all ? { ...state.clock, phase: "over", paused: null, since: Date.now() } : state.clock,
  };
}

function Big({
  act,
  off = false,
  children,
}: {
  act: () => void;
  off?: boolean;
  children: React.ReactNode;
}) {
  return (
    <button type="button" disabled={off} onClick={act} className="key-button h-14 text-lg">
      {children}
    </button>
  );
}

/**
 * An athlete's own sets: while one works the one before and the one in hand, while one rests the one
 * just done and the next. A tap opens it: what is done is corrected, what is to come is changed.
 */
function Athlete({
  run,
  state,
  many,
  open,
}: {
  run: Part;
  state: State;
  many: boolean;
  open: (step: number) => void;
}) {
  const mine = state.own[run.athlete];
  const rests = state.clock.phase === "rest";
  const here = state.clock.step + (rests ? 1 : 0);
  const shown = [here - 1, here].filter((step) => step >= 0 && step < state.steps.length);
  return (
    <li className="border-b border-rule py-1.5">
      <p className="font-semibold">
        {run.name}
        {mine?.stopped && <span className="ml-2 font-normal text-high">stopped</span>}
      </p>
      {shown.map((step) => {
        const due = wanted(run, state, step);
        if (!due)
          return step === here ? (
            <p key={step} className="text-ink-2">
              nothing at this place
            </p>
          ) : null;
        const done = mine?.done[step];
        const verb = done === undefined ? "change" : "correct";
        return (
          <button
            key={step}
            type="button"
            disabled={mine?.stopped && done === undefined}
            onClick={() => open(step)}
            aria-label={`${run.name}, set ${step + 1}: ${verb}`}
            className="flex min-h-11 w-full items-center gap-2.5 text-left"
          >
            <span
              aria-hidden="true"
              className={`size-3 shrink-0 border border-ink ${done ? "bg-ink" : ""}`}
            />
            <span className="min-w-0 flex-1">
              <span className="block truncate text-sm text-ink-2">
                {rests && step === here && "next: "}
                {done?.exercise ?? due.movement}
              </span>
              <span
                className={`${done === null ? "text-ink-2 line-through" : ""} ${many && step === here ? "text-xl leading-tight font-semibold" : ""}`}
              >
                {done ? told(done) : due.says}
              </span>
            </span>
            <span className="trail-link text-sm text-ink-2">{verb}</span>
          </button>
        );
      })}
    </li>
  );
}

function SensorLine({
  reps,
  planned: wanted,
  problem,
}: {
  reps: Parameters<typeof measured>[0];
  planned: string;
  problem: string | null;
}) {
  const seen = measured(reps);
  return (
    <span className="ml-4 text-lg text-ink" aria-live="polite">
      {problem ??
        (seen
          ? `${seen.reps} rep${seen.reps === 1 ? "" : "s"}, tempo ${seen.tempo} of ${wanted}, ${seen.tension} s under load`
          : "waiting for the first rep")}
    </span>
  );
}

function Cautions({
  runs,
  caution,
  begin: go,
}: {
  runs: Part[];
  caution: string;
  begin: () => void;
}) {
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-8 pt-6 max-md:px-4">
      <h1 className="text-2xl font-semibold">{runs[0]?.title || "Session"}</h1>
      <p className="mt-1 text-lg">
        {runs.map((one) => one.name).join(", ")}: {leader(runs).sets.length} sets.
      </p>
      {runs
        .filter((one) => one.restrictions.length > 0)
        .map((one) => (
          <section
            key={one.athlete}
            aria-label={`Restrictions of ${one.name}`}
            className="mt-4 max-w-prose border-l-4 border-high pl-4"
          >
            <p className="font-semibold">{one.name} is restricted</p>
            <ul>
              {one.restrictions.map((note) => (
                <li key={note.words} className="mt-1.5">
                  <span className="block text-lg first-letter:uppercase">{note.words}</span>
                  <span className="block text-sm text-ink-2">
                    {note.by}, {date(note.since)}
                    {note.word && `: “${note.word}”`}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ))}
      <p className="mt-4 max-w-prose border-l-4 border-caution pl-4">{caution}</p>
      <button type="button" className="ink-button mt-6 h-16 px-10 text-xl" onClick={go}>
        Begin
      </button>
    </main>
  );
}

function Over({
  runs,
  state,
  again,
  back,
}: {
  runs: Part[];
  state: State;
  again: () => void;
  back: () => void;
}) {
  return (
    <div className="pt-6">
      <h1 className="text-[2.5rem] font-semibold">Done</h1>
      <ul className="mt-2 text-lg">
        {runs.map((run) => {
          const mine = state.own[run.athlete];
          const sets = Object.values(mine?.done ?? {}).filter(Boolean).length;
          return (
            <li key={run.athlete} className="border-b border-hair py-1">
              {run.name}: {sets} of {run.sets.length} sets
              {mine?.stopped ? ", stopped because something hurt" : ""}.{" "}
              <Link
                className="trail-link"
                to={`${weekPath(run.athlete, weekOf(run.date), "log")}?session=plan-${run.plan}`}
              >
                Exertion and notes in the log
              </Link>
            </li>
          );
        })}
      </ul>
      <p className="mt-5 flex gap-3">
        <button type="button" className="key-button h-12" onClick={back}>
          Back to the last set
        </button>
        <button type="button" className="key-button h-12" onClick={again}>
          Run it again from the start
        </button>
      </p>
    </div>
  );
}

/** The ISO week of a day, as the address has it. */
function weekOf(iso: string): string {
  const day = new Date(`${iso}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() + 4 - (day.getUTCDay() || 7));
  const first = Date.UTC(day.getUTCFullYear(), 0, 1);
  return `${day.getUTCFullYear()}-W${String(Math.ceil(((day.getTime() - first) / 86_400_000 + 1) / 7)).padStart(2, "0")}`;
}

function Hurts({
  runs,
  movement,
  close,
  stop,
}: {
  runs: Part[];
  movement: string | null;
  close: () => void;
  stop: (athlete: number, note: string) => void;
}) {
  const [who, setWho] = useState(runs[0]?.athlete ?? 0);
  const [note, setNote] = useState("");
  return (
    <DialogSheet open close={close} title="Stop: something hurts">
      <p>
        Stop now. Sharp pain, chest pain, dizziness or numbness: see a doctor. What was done is
        kept, and the coach is told.
      </p>
      {runs.length > 1 && (
        <label className="mt-3 block">
          Who
          <select
            value={who}
            onChange={(event) => setWho(Number(event.target.value))}
            className="field mt-0.5 block h-12 w-full text-lg"
          >
            {runs.map((one) => (
              <option key={one.athlete} value={one.athlete}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <label className="mt-3 block">
        Where, and how{movement ? `, at ${movement}` : ""}
        <input
          value={note}
          maxLength={500}
          onChange={(event) => setNote(event.target.value)}
          className="field mt-0.5 h-12 w-full text-lg"
        />
      </label>
      <div className="mt-4 flex gap-3">
        <button
          type="button"
          className="ink-button h-12 px-6 text-lg"
          onClick={() => {
            stop(who, note);
            close();
          }}
        >
          Stop and note it
        </button>
        <button type="button" className="key-button h-12 px-6 text-lg" onClick={close}>
          Back
        </button>
      </div>
    </DialogSheet>
  );
}

/** Tones of the last three seconds of a phase, and of its end; said once each. */
function useTones(state: State | null, now: number, lead: Part): void {
  const said = useRef("");
  useEffect(() => {
    if (!state?.begun || state.clock.paused !== null) return;
    const seconds = lasts(state.clock, state.steps, lead.sets);
    const left = seconds === null ? null : Math.ceil(seconds - elapsed(state.clock, now));
    const key = `${state.clock.step}/${state.clock.phase}/${state.clock.since}`;
    const counting = left !== null && left >= 1 && left <= 3;
    const mark = `${key}/${counting ? left : ""}`;
    if (said.current === mark) return;
    const begins = !said.current.startsWith(`${key}/`);
    said.current = mark;
    if (counting) tone("low");
    else if (begins && state.clock.phase === "work" && seconds !== null) tone("high");
    else if (begins && state.clock.phase === "rest") tone("low");
  }, [state, now, lead]);
}
