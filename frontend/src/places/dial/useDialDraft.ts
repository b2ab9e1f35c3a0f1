import { useCallback, useRef, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import { useDraftStore } from "./useDraftStore";
import { useNotches } from "./useNotches";

export type Sessions = Schemas["DraftSession"][];
export type Line = Schemas["Line"];

/** A draft with its figures. */
export interface State {
  sessions: Sessions;
  audit: Schemas["DraftAudit"];
  /** The draft as it was last edited by hand: what the dial scales. */
  shape: Sessions;
}

/** A draft in hand: edited, turned, audited at once, stored soon after, undone step by step. */
export function useDialDraft(place: WeekPlace, opened: Schemas["DraftOut"]) {
  const { sessions, audit, shape } = opened;
  const [state, setState] = useState<State>({ sessions, audit, shape });
  const [past, setPast] = useState<State[]>([]);
  const [pointer, setPointer] = useState(opened.audit.total);
  const [error, setError] = useState<string | null>(null);
  const latest = useRef(state);
  /** The last state that the core has answered: the only kind that undo goes back to. */
  const answered = useRef(state);
  const asked = useRef<AbortController>(null);
  const inHand = useCallback(() => latest.current, []);
  const notches = useNotches(place, state.shape, opened.start_total);
  const { saving, toStore, reset, publish } = useDraftStore(place, opened, inHand, state, setError);

  const show = useCallback((next: State) => {
    latest.current = next;
    answered.current = next;
    setState(next);
    setPointer(next.audit.total);
    setError(null);
  }, []);

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
        setPointer(latest.current.audit.total);
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
      latest.current = { ...before, sessions, shape: sessions };
      setState(latest.current);
      return ask(async (signal) => {
        const audit = await dial.audit(place, sessions, signal);
        return { sessions, audit, shape: sessions };
      });
    },
    [ask, place],
  );

  const turn = useCallback(
    (total: number) => {
      const before = latest.current;
      // A circuit jumps over some numbers of sets: the dial stops behind them, the way it is turned.
      const toward = total > before.audit.total ? "up" : "down";
      setPointer(total);
      return ask(async (signal) => {
        const answer = await dial.turn(place, before.shape, total, toward, signal);
        return { sessions: answer.sessions as Sessions, audit: answer.audit, shape: before.shape };
      });
    },
    [ask, place],
  );

  /** Changes that the core makes, taken in one step. */
  const taken = useCallback(
    (change: (sessions: Sessions, signal: AbortSignal) => Promise<Schemas["DialOut"]>) =>
      ask(async (signal) => {
        const answer = await change(latest.current.sessions, signal);
        const sessions = answer.sessions as Sessions;
        return { sessions, audit: answer.audit, shape: sessions };
      }),
    [ask],
  );

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
    notches,
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

/** The sessions with one line changed. */
export function withLine(
  sessions: Sessions,
  at: number,
  number: number,
  change: (line: Line) => Line,
): Sessions {
  return sessions.map((session, i) =>
    i === at
      ? { ...session, lines: session.lines.map((line, j) => (j === number ? change(line) : line)) }
      : session,
  );
}
