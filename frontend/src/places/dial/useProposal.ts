import { useEffect, useRef, useState } from "react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type Schemas, messageOf } from "@/api/client";
import { decisions } from "@/api/decisions";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import type { Sessions } from "./draft";
import { type Step, asDeclined } from "./proposed";

const ASK_AFTER_MS = 250;

/** What stays as long as draft and locks do: the ladder, where to stop on it, and why there. */
type Ladder = Pick<Schemas["ProposalOut"], "ladder" | "stop" | "why">;

interface Asked {
  proposal: Schemas["ProposalOut"] | null;
  asking: boolean;
  error: string | null;
}

/** Whether a proposal is shown, within which cost, and what is held as it is; and the answer. */
export function useProposalDesk(place: WeekPlace, sessions: Sessions, opened: boolean) {
  const [open, setOpen] = useState(opened);
  const [budget, setBudget] = useState<number | null>(null);
  const [locks, setLocks] = useState<string[]>([]);
  const declining = useDeclining(place);
  const asked = useProposal(place, sessions, budget, locks, open, declining.turn);
  return { ...asked, open, setOpen, budget, setBudget, locks, setLocks, declining };
}

/** What was declined last, and the way back; each turn asks for another proposal. */
function useDeclining(place: WeekPlace) {
  const [last, setLast] = useState<{ says: string; decisions: number[] } | null>(null);
  const [turn, setTurn] = useState(0);
  const queries = useQueryClient();
  // The draft in hand stays: only what is decided has changed.
  const settle = async () => {
    setTurn((now) => now + 1);
    await queries.invalidateQueries({ queryKey: ["decisions"] });
  };
  const decline = useMutation({
    mutationFn: async (steps: Step[]) => {
      const wanted = steps.map(asDeclined);
      const { decisions: made, words } = await dial.decline(place, wanted);
      setLast({ says: words, decisions: made });
    },
    onSuccess: settle,
  });
  const undo = useMutation({
    mutationFn: async () => {
      for (const one of last?.decisions ?? []) await decisions.end(place.athlete, one);
      setLast(null);
    },
    onSuccess: settle,
  });
  return {
    turn,
    last,
    decline: decline.mutate,
    undo: () => undo.mutate(),
    pending: decline.isPending || undo.isPending,
    error: decline.error?.message ?? undo.error?.message ?? null,
  };
}

export type ProposalDesk = ReturnType<typeof useProposalDesk>;

/** A proposal for the draft in hand, asked for again whenever it or what is held changes. */
function useProposal(
  place: WeekPlace,
  sessions: Sessions,
  budget: number | null,
  locks: string[],
  open: boolean,
  declined: number,
): Asked {
  const [asked, setAsked] = useState<Asked>({ proposal: null, asking: false, error: null });
  const held = [declined, ...locks].join("\n");
  const known = useRef<{ sessions: Sessions; held: string; ladder: Ladder }>(null);
  useEffect(() => {
    if (!open) return undefined;
    const control = new AbortController();
    const timer = setTimeout(() => {
      setAsked((now) => ({ ...now, asking: true, error: null }));
      const ask = async (within: number | null, ladder: boolean) => {
        const [, ...locked] = held.split("\n");
        const body = { sessions, budget: within, locks: locked, thorough: false, ladder };
        return dial.propose(place, body, control.signal);
      };
      // The same draft has the same ladder, whatever of it is wanted; of another one it comes later
      // than the answer.
      const same = known.current?.sessions === sessions && known.current.held === held;
      const ladder = (same ? known.current?.ladder : null) ?? { ladder: [], stop: 0, why: "" };
      ask(budget, false)
        .then(async (answer) => {
          setAsked({ proposal: { ...answer, ...ladder }, asking: false, error: null });
          if (same) return;
          // Where to stop does not depend on where the coach has turned to.
          const whole = await ask(null, true);
          const found = { ladder: whole.ladder, stop: whole.stop, why: whole.why };
          known.current = { sessions, held, ladder: found };
          const shown = budget === null ? whole : { ...answer, ...found };
          setAsked({ proposal: shown, asking: false, error: null });
        })
        .catch((problem: unknown) => {
          if (control.signal.aborted) return;
          setAsked({
            proposal: null,
            asking: false,
            error: messageOf(problem),
          });
        });
    }, ASK_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [place, sessions, budget, held, open]);
  return asked;
}
