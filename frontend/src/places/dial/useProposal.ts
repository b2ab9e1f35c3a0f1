import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import type { Sessions } from "./draft";

const ASK_AFTER_MS = 250;

interface Asked {
  proposal: Schemas["ProposalOut"] | null;
  asking: boolean;
  error: string | null;
}

/** Whether the least change is shown, within which cost, and what is held as it is; and the answer. */
export function useProposalDesk(place: WeekPlace, sessions: Sessions, opened: boolean) {
  const [open, setOpen] = useState(opened);
  const [budget, setBudget] = useState<number | null>(null);
  const [locks, setLocks] = useState<string[]>([]);
  const asked = useProposal(place, sessions, budget, locks, open);
  return { ...asked, open, setOpen, budget, setBudget, locks, setLocks };
}

export type ProposalDesk = ReturnType<typeof useProposalDesk>;

/** The least change of the draft in hand, asked for anew whenever it or what is held changes. */
function useProposal(
  place: WeekPlace,
  sessions: Sessions,
  budget: number | null,
  locks: string[],
  open: boolean,
): Asked {
  const [asked, setAsked] = useState<Asked>({ proposal: null, asking: false, error: null });
  const held = locks.join("\n");
  useEffect(() => {
    if (!open) return undefined;
    const control = new AbortController();
    const timer = setTimeout(() => {
      setAsked((now) => ({ ...now, asking: true, error: null }));
      dial
        .propose(place, { sessions, budget, locks: held ? held.split("\n") : [] }, control.signal)
        .then((proposal) => setAsked({ proposal, asking: false, error: null }))
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
