import { useEffect, useRef, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import type { Sessions } from "./draft";

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
  const asked = useProposal(place, sessions, budget, locks, open);
  return { ...asked, open, setOpen, budget, setBudget, locks, setLocks };
}

export type ProposalDesk = ReturnType<typeof useProposalDesk>;

/** A proposal for the draft in hand, asked for again whenever it or what is held changes. */
function useProposal(
  place: WeekPlace,
  sessions: Sessions,
  budget: number | null,
  locks: string[],
  open: boolean,
): Asked {
  const [asked, setAsked] = useState<Asked>({ proposal: null, asking: false, error: null });
  const held = locks.join("\n");
  const known = useRef<{ sessions: Sessions; held: string; ladder: Ladder }>(null);
  useEffect(() => {
    if (!open) return undefined;
    const control = new AbortController();
    const timer = setTimeout(() => {
      setAsked((now) => ({ ...now, asking: true, error: null }));
      const ask = async (within: number | null, ladder: boolean) => {
        const locked = held ? held.split("\n") : [];
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
