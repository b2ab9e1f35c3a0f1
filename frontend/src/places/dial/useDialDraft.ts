import { useCallback, useRef, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import { type Sessions, type Subject, WEEK } from "./draft";
import { useDraftStore } from "./useDraftStore";
import { type Dialled, useNotches } from "./useNotches";

/** A draft with its figures. */
export interface State {
  sessions: Sessions;
  audit: Schemas["DraftAudit"];
  /** The draft as it was last edited by hand: what the dial turns. */
  shape: Sessions;
  /** What the dial is put on, and where it was turned to; `null` where it was not. */
  on: Subject;
  setting: number | null;
}

/** A draft in hand: edited, turned, audited at once, stored soon after, undone step by step. */
export function useDialDraft(place: WeekPlace, opened: Schemas["DraftOut"]) {
  const { sessions, audit, shape } = opened;
  const first = { sessions, audit, shape, on: WEEK, setting: null };
  const [state, setState] = useState<State>(first);
  const [past, setPast] = useState<State[]>([]);
  const [turning, setTurning] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const latest = useRef(state);
  /** The last state that the core has answered: the only kind that undo goes back to. */
  const answered = useRef(state);
  const asked = useRef<AbortController>(null);
  const inHand = useCallback(() => latest.current, []);
  const dialled = useNotches(place, state.shape, state.on, opened);
  const { saving, toStore, reset, publish } = useDraftStore(place, opened, inHand, state, setError);

  /** Another state in hand that the core need not be asked about. */
  const setInHand = useCallback((next: State) => {
    latest.current = next;
    answered.current = next;
    setState(next);
  }, []);

  const show = useCallback(
    (next: State) => {
      setInHand(next);
      setTurning(null);
      setError(null);
    },
    [setInHand],
  );

  /** Ask the core; an answer to an older question is dropped. */
  const ask = useCallback(
    async (question: (signal: AbortSignal) => Promise<State>) => {
      asked.current?.abort();
      const control = new AbortController();
      asked.current = control;
      try {
        const next = await question(control.signal);
        if (control.signal.aborted) return;
        const before = answered.current;
        setPast((steps) => [...steps.slice(-99), before]);
        show(next);
        toStore();
      } catch (problem) {
        if (control.signal.aborted) return;
        setTurning(null);
        setError(messageOf(problem));
      }
    },
    [show, toStore],
  );

  const edit = useCallback(
    (change: (sessions: Sessions) => Sessions) => {
      const before = latest.current;
      const sessions = change(before.sessions);
      // The field shows what was typed at once; the figures follow with the answer.
      const next = { ...before, sessions, shape: sessions, setting: null };
      latest.current = next;
      setState(next);
      return ask(async (signal) => ({
        ...next,
        audit: await dial.audit(place, sessions, signal),
      }));
    },
    [ask, place],
  );

  /** Changes that the core makes, taken in one step. */
  const taken = useCallback(
    (change: (sessions: Sessions, signal: AbortSignal) => Promise<Schemas["DialOut"]>) =>
      ask(async (signal) => {
        const answer = await change(latest.current.sessions, signal);
        const sessions = answer.sessions as Sessions;
        return { ...latest.current, sessions, audit: answer.audit, shape: sessions, setting: null };
      }),
    [ask],
  );

  const { pointer, turn, putOn } = useTurning(place, state, dialled, {
    ask,
    inHand,
    turning,
    setTurning,
    put: setInHand,
  });

  const undo = useCallback(() => {
    const last = past.at(-1);
    if (!last) return;
    asked.current?.abort();
    setPast(past.slice(0, -1));
    show(last);
    toStore();
  }, [past, show, toStore]);

  return {
    ...state,
    pointer,
    dialled,
    putOn,
    saving,
    error,
    edit,
    turn,
    taken,
    undo,
    canUndo: past.length > 0,
    reset,
    publish,
  };
}

interface Hands {
  ask: (question: (signal: AbortSignal) => Promise<State>) => Promise<void>;
  inHand: () => State;
  /** Where the dial was turned to, until the core answers. */
  turning: number | null;
  setTurning: (setting: number) => void;
  put: (next: State) => void;
}

/** The dial of a draft: where it stands, turning it, putting it on something else. */
function useTurning(place: WeekPlace, state: State, dialled: Dialled, hands: Hands) {
  const { ask, inHand, turning, setTurning, put } = hands;
  const stands = state.setting ?? (state.on.kind === "week" ? state.audit.total : dialled.start);
  const pointer = turning ?? stands;

  const turn = useCallback(
    (setting: number) => {
      const before = inHand();
      // A circuit jumps over some numbers of sets: the dial stops behind them, the way it is turned.
      const toward = setting > stands ? "up" : "down";
      setTurning(setting);
      return ask(async (signal) => {
        const answer = await dial.turn(place, before.shape, before.on, setting, toward, signal);
        return {
          ...before,
          sessions: answer.sessions as Sessions,
          audit: answer.audit,
          setting: answer.setting ?? setting,
        };
      });
    },
    [ask, inHand, place, setTurning, stands],
  );

  /** Put the dial on something else: it goes on from the draft as it now is. */
  const putOn = useCallback(
    (on: Subject) => {
      const now = inHand();
      put({ ...now, on, shape: now.sessions, setting: null });
    },
    [inHand, put],
  );
  return { pointer, turn, putOn };
}
