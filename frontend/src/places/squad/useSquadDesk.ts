import { useState } from "react";
import { useChange, useLook } from "@/api/changes";
import { useTakingBack } from "@/api/journal";
import { squads, useSquadDraft, useSquadProposal } from "@/api/squads";
import { useInWindow } from "@/shared/useInWindow";
import { type Turn, asBody, withTurn, without } from "./turns";

interface Kept {
  turns: Turn[];
  /** What it was before each change, the latest last. */
  past: Turn[][];
  /** The proposal that was asked for. */
  token: string;
  /** The plans that the changes are of: with others they would mean something else. */
  state: string;
}

const NOTHING: Kept = { turns: [], past: [], token: "", state: "" };
const MOST_PAST = 30;

/** The draft of a squad in hand: turned, proposed for, published, taken back. It stays in the window. */
export function useSquadDesk(squad: string, week: string) {
  const [kept, put] = useInWindow(`squad draft/${squad}/${week}`, NOTHING);
  const { turns: inHand } = kept;
  const state = inHand.length > 0 ? kept.state : "";
  const draft = useSquadDraft({ squad, week, state, turns: inHand.map(asBody) });
  const proposal = useSquadProposal(kept.token);
  const [published, setPublished] = useState<{ id: number; people: number; undone: boolean }>();
  const back = useTakingBack();
  const turn = (turns: Turn[]) =>
    put((now) => ({
      ...now,
      turns,
      past: [...now.past, now.turns].slice(-MOST_PAST),
      state: now.turns.length > 0 ? now.state : (draft.data?.state ?? ""),
    }));
  const asking = useLook(async () => {
    const job = await squads.propose({ squad, week, thorough: false });
    put((now) => ({ ...now, token: job.token }));
  });
  const stopping = useLook(() => squads.stop(kept.token));
  const publishing = useChange(async () => {
    const done = await squads.publish({ squad, week, state, turns: kept.turns.map(asBody) });
    setPublished({ id: done.change, people: done.people, undone: false });
    put(NOTHING);
  });
  return {
    turns: kept.turns,
    draft,
    proposal: kept.token ? proposal.data : undefined,
    /** The proposal went with the server's memory, or was never there. */
    lost: kept.token !== "" && proposal.error !== null,
    isAsking: asking.isPending,
    busy: publishing.isPending,
    error: asking.error ?? stopping.error ?? publishing.error,
    published,
    back,
    canUndo: kept.past.length > 0,
    put: (one: Turn) => turn(withTurn(kept.turns, one)),
    drop: (one: Turn) => turn(without(kept.turns, one)),
    takeAll: (several: Turn[]) => turn(several.reduce(withTurn, kept.turns)),
    undo: () =>
      put((now) => ({ ...now, turns: now.past.at(-1) ?? [], past: now.past.slice(0, -1) })),
    discard: () => put(NOTHING),
    ask: () => asking.mutate(undefined),
    stop: () => stopping.mutate(undefined),
    publish: () => publishing.mutate(undefined),
    swap: () => {
      if (!published) return;
      const undone = !published.undone;
      back.swap(published, true, () => setPublished({ ...published, undone }));
    },
  };
}

export type SquadDesk = ReturnType<typeof useSquadDesk>;
