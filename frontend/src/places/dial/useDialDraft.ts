import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";

export type Sessions = Schemas["DraftSession"][];
export type Line = Schemas["Line"];

export type Saving = "stored" | "changed" | "saving" | "stale" | "failed";

interface State {
  sessions: Sessions;
  audit: Schemas["DraftAudit"];
  /** The draft as it was last edited by hand: what the dial scales. */
  shape: Sessions;
}

const SAVE_AFTER_MS = 700;
const NOTCHES_AFTER_MS = 200;

/** A draft in hand: edited, turned, audited at once, stored soon after, undone step by step. */
export function useDialDraft(place: WeekPlace, opened: Schemas["DraftOut"]) {
  const [state, setState] = useState<State>({
    sessions: opened.sessions,
    audit: opened.audit,
    shape: opened.shape,
  });
  const [past, setPast] = useState<State[]>([]);
  const [pointer, setPointer] = useState(opened.audit.total);
  const [notches, setNotches] = useState<Schemas["NotchesOut"]>({
    start: opened.start_total,
    notches: [],
  });
  const [saving, setSaving] = useState<Saving>("stored");
  const [error, setError] = useState<string | null>(null);
  const revision = useRef(opened.revision);
  const latest = useRef(state);
  /** The last state that the core has answered: the only kind that undo goes back to. */
  const answered = useRef(state);
  const asked = useRef<AbortController>(null);
  const queries = useQueryClient();
  // One write after the other: each goes by the revision that the one before it left.
  const { mutateAsync: inTurn } = useMutation({
    scope: { id: `draft ${place.athlete} ${place.week}` },
    mutationFn: (write: () => Promise<void>) => write(),
  });

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
        setSaving("changed");
      } catch (problem) {
        if (control.signal.aborted) return;
        setPointer(latest.current.audit.total);
        setError(messageOf(problem));
      }
    },
    [show],
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

  /** Changes of a proposal, taken in one step. */
  const take = useCallback(
    (steps: Schemas["TakeStep"][]) => {
      const before = latest.current;
      return ask(async (signal) => {
        const answer = await dial.take(place, before.sessions, steps, signal);
        const sessions = answer.sessions as Sessions;
        return { sessions, audit: answer.audit, shape: sessions };
      });
    },
    [ask, place],
  );

  const undo = useCallback(() => {
    const last = past.at(-1);
    if (!last) return;
    asked.current?.abort();
    setPast(past.slice(0, -1));
    show(last);
    setSaving("changed");
  }, [past, show]);

  const body = useCallback(
    (): Schemas["SaveDraftBody"] => ({
      sessions: latest.current.sessions,
      shape: latest.current.shape,
      revision: revision.current,
      start_total: opened.start_total,
    }),
    [opened.start_total],
  );

  useEffect(() => {
    if (saving !== "changed") return undefined;
    const timer = setTimeout(async () => {
      setSaving("saving");
      try {
        await inTurn(async () => {
          const stored = await dial.save(place, body());
          revision.current = stored.revision;
        });
        setSaving((now) => (now === "saving" ? "stored" : now));
      } catch (problem) {
        const stale = problem instanceof Refusal && problem.status === 409;
        setSaving(stale ? "stale" : "failed");
        setError(messageOf(problem));
      }
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [saving, state, place, body, inTurn]);

  // Whoever leaves within the moment before a save does not lose it.
  const unsaved = useRef(false);
  useEffect(() => {
    unsaved.current = saving === "changed";
  }, [saving]);
  useEffect(
    () => () => {
      if (unsaved.current) void dial.save(place, body()).catch(() => undefined);
    },
    [place, body],
  );

  const shape = state.shape;
  useEffect(() => {
    const control = new AbortController();
    const timer = setTimeout(() => {
      dial
        .notches(place, shape, control.signal)
        .then(setNotches)
        // The dial turns without its notches; the figures tell of a lost server.
        .catch(() => undefined);
    }, NOTCHES_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [place, shape]);

  const reset = useCallback(async () => {
    unsaved.current = false;
    // What was about to be stored is not wanted any more.
    setSaving("saving");
    try {
      await inTurn(async () => {
        await dial.reset(place, revision.current);
      });
      await queries.invalidateQueries({ queryKey: ["draft"] });
    } catch (problem) {
      setSaving("failed");
      setError(messageOf(problem));
    }
  }, [place, queries, inTurn]);

  const publish = useCallback(async () => {
    unsaved.current = false;
    await inTurn(async () => {
      await dial.publish(place, body());
    });
    await queries.invalidateQueries();
  }, [place, body, queries, inTurn]);

  return {
    ...state,
    pointer,
    notches,
    saving,
    error,
    edit,
    turn,
    take,
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
