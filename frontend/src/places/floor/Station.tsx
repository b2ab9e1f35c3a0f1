import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { Cues } from "./Cues";
import { SensorLine, type Watch } from "./SensorLine";
import { number } from "@/words";
import {
  type Clock,
  LATE_S,
  type NextAct,
  elapsed,
  face,
  isOfTwo,
  jump,
  lasts,
  late,
  nextAct,
  pause,
} from "./clock";
import {
  type Run,
  type State,
  firstSide,
  inSight,
  leader,
  oneMoreOf,
  pastDone,
  planned,
  sideNow,
  skip,
  stopHere,
  turnedAround,
  wanted,
} from "./run";

interface Props {
  runs: Run[];
  movements: Schemas["FloorMovement"][];
  state: State;
  /** The planned set in hand. */
  set: Schemas["FloorSet"];
  now: number;
  sensing: boolean;
  /** The sensor, where one athlete runs alone. */
  watch: Watch | null;
  act: (does: NextAct["does"]) => void;
  change: (how: (state: State) => State) => void;
  setClock: (how: (clock: Clock) => Clock) => void;
  hurts: () => void;
}

/** What is to be done now: the set, the clock, and what can be tapped. */
export function Station({ set, watch, hurts, ...run }: Props) {
  const { runs, state, change, setClock } = run;
  const { clock } = state;
  const asIs = runs.some((one) => state.own[one.athlete]?.ahead[clock.step])
    ? "Done as changed"
    : "Done as planned";
  const movement = wanted(leader(runs), state, inSight(state))?.movement;
  const next = nextAct(clock, set, run.sensing, asIs);
  return (
    <>
      <SetInSight runs={runs} state={state} set={set} turn={() => change(turnedAround)} />
      <Cues
        key={movement}
        set={wanted(leader(runs), state, inSight(state))?.set}
        runs={runs.filter((one) => !state.own[one.athlete]?.stopped)}
        movements={run.movements}
        phase={clock.phase}
      />
      <Face runs={runs} state={state} now={run.now} />
      {watch && <SensorLine {...watch} />}
      <button
        type="button"
        className="ink-button mt-3 h-20 text-2xl font-semibold"
        onClick={() => run.act(next.does)}
      >
        {next.says}
      </button>
      <div className="mt-3 grid grid-cols-4 gap-3 max-md:grid-cols-2">
        <Big
          act={() => setClock((all) => pause(all, Date.now()))}
          off={clock.phase === "ready" && clock.paused === null}
        >
          {clock.paused === null ? "Pause" : "Resume"}
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
        <Big act={() => change((all) => pastDone(skip(all, runs, Date.now()), runs, Date.now()))}>
          Skip
        </Big>
        <Big act={() => change((all) => oneMoreOf(all, runs))}>
          {set.round === null ? "One more set" : "One more round"}
        </Big>
      </div>
      {/* Within reach of the thumb, however many athletes stand below. */}
      <div className="mt-3 flex gap-3">
        <button
          type="button"
          className="key-button h-12 flex-1 border-high text-lg text-high"
          onClick={hurts}
        >
          Stop: something hurts
        </button>
        <button
          type="button"
          className="key-button h-12 px-6 text-lg"
          onClick={() => change((all) => stopHere(all, runs, Date.now()))}
        >
          Stop here
        </button>
      </div>
    </>
  );
}

/** Which set it is, of what, and how it is to be done. */
function SetInSight({
  runs,
  state,
  set,
  turn,
}: Pick<Props, "runs" | "state" | "set"> & { turn: () => void }) {
  const { clock, steps } = state;
  const shown = wanted(leader(runs), state, inSight(state));
  const due = planned(leader(runs), steps, inSight(state));
  const works = clock.phase === "work" || clock.phase === "turn";
  return (
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
        {shown?.says}
        {isOfTwo(set) && works && (
          <span className="ml-3 font-semibold text-caution">{sideNow(state)}</span>
        )}
        {isOfTwo(set) && (clock.phase === "ready" || clock.phase === "count-in") && (
          <button
            type="button"
            className="trail-link ml-3 min-h-11 text-lg"
            onClick={turn}
            aria-label={`${firstSide(state)} first: begin with the other side`}
          >
            {firstSide(state)} first
          </button>
        )}
      </p>
      {due && (due.target || due.set.note) && (
        <p className="mt-2 text-2xl max-md:text-xl">
          {due.target}
          {due.set.note && <span className="block">{due.set.note}</span>}
        </p>
      )}
      {due?.why && (
        <p className="mt-1 text-lg text-ink-2 italic max-md:text-base">Why: {due.why}</p>
      )}
    </>
  );
}

const WORDS = {
  ready: "ready",
  "count-in": "get ready",
  work: "work",
  turn: "change sides",
  rest: "rest, then this",
  over: "done",
};

/** The clock in large figures: what is left of a phase, or what a set has taken. */
function Face({ runs, state, now }: Pick<Props, "runs" | "state" | "now">) {
  const { clock, steps } = state;
  const seconds = lasts(clock, steps, leader(runs).sets);
  const gone = elapsed(clock, now);
  const behind = late(clock, steps, leader(runs).sets);
  const shows =
    clock.phase === "ready"
      ? "–:––"
      : seconds === null
        ? face(gone, false)
        : face(Math.max(0, seconds - gone), true);
  return (
    <div role="timer" aria-label="Clock" className="mt-auto flex items-baseline gap-6">
      <span
        className={`text-[9rem] leading-none font-semibold tabular-nums max-md:text-[6.5rem] ${clock.phase === "rest" ? "text-ink-2" : ""}`}
      >
        {shows}
      </span>
      <span className="text-3xl text-ink-2 max-md:text-xl">
        {clock.paused !== null ? "paused" : WORDS[clock.phase]}
        {behind >= LATE_S && (
          <span className="block text-xl text-caution">{number(behind, 0)} s late</span>
        )}
      </span>
    </div>
  );
}

interface BigProps {
  act: () => void;
  off?: boolean;
  children: ReactNode;
}

function Big({ act, off = false, children }: BigProps) {
  return (
    <button type="button" disabled={off} onClick={act} className="key-button h-14 text-lg">
      {children}
    </button>
  );
}
