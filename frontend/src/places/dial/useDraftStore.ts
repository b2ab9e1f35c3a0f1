import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { inOrder, isAnswered } from "@/api/inOrder";
import { type WeekPlace } from "@/api/place";
import type { State } from "./useDialDraft";

export type Saving = "stored" | "changed" | "saving" | "stale" | "refused" | "cut off";

const SAVE_AFTER_MS = 700;
/** The server did not answer: it is asked again. */
const AGAIN_AFTER_MS = 3000;

/** A draft is stored soon after it was changed, one write after the other, and published. */
export function useDraftStore(
  place: WeekPlace,
  opened: Schemas["DraftOut"],
  /** The draft as it now stands. */
  inHand: () => State,
  state: State,
  setError: (says: string | null) => void,
) {
  const [saving, setSaving] = useState<Saving>("stored");
  const revision = useRef(opened.revision);
  const queries = useQueryClient();
  // Each write goes by the revision that the one before it left.
  const { mutateAsync: inTurn } = useMutation({
    scope: { id: `draft ${place.athlete} ${place.week}` },
    mutationFn: (write: () => Promise<void>) => write(),
  });
  const body = useCallback(
    (): Schemas["SaveDraftBody"] => ({
      sessions: inHand().sessions,
      // What another dial than that of the week has turned is as if edited by hand.
      shape: inHand().on.kind === "week" ? inHand().shape : inHand().sessions,
      revision: revision.current,
      start_total: opened.start_total,
    }),
    [opened.start_total, inHand],
  );

  const [send] = useState(() =>
    inOrder(
      (draft: Schemas["SaveDraftBody"]) => dial.save(place, draft),
      (stored) => {
        revision.current = stored.revision;
      },
    ),
  );
  const store = useCallback(async () => {
    await send(body);
  }, [send, body]);

  // Whoever leaves before an answer has come, or before a save, does not lose what was changed.
  const gone = useRef(false);
  const unsaved = useRef(false);
  const leave = useCallback(() => void inTurn(store).catch(() => undefined), [inTurn, store]);
  const toStore = useCallback(() => {
    if (gone.current) leave();
    else setSaving("changed");
  }, [leave]);

  useEffect(() => {
    if (saving !== "changed" && saving !== "cut off") return undefined;
    const wait = saving === "changed" ? SAVE_AFTER_MS : AGAIN_AFTER_MS;
    const timer = setTimeout(async () => {
      setSaving("saving");
      try {
        await inTurn(store);
        setSaving((now) => (now === "saving" ? "stored" : now));
        if (saving === "cut off") setError(null);
      } catch (problem) {
        const stale = problem instanceof Refusal && problem.status === 409;
        setSaving(stale ? "stale" : isAnswered(problem) ? "refused" : "cut off");
        setError(messageOf(problem));
      }
    }, wait);
    return () => clearTimeout(timer);
  }, [saving, state, store, inTurn, setError]);

  const left = useRef(leave);
  useEffect(() => {
    unsaved.current = saving === "changed" || saving === "cut off";
    left.current = leave;
  }, [saving, leave]);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
      if (unsaved.current) left.current();
    };
  }, []);

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
      setSaving("refused");
      setError(messageOf(problem));
    }
  }, [place, queries, inTurn, setError]);

  const publish = useCallback(
    async (logged: string[]) => {
      unsaved.current = false;
      let change = 0;
      await inTurn(async () => {
        ({ change } = await dial.publish(place, { ...body(), logged }));
      });
      await queries.invalidateQueries();
      return change;
    },
    [place, body, queries, inTurn],
  );
  return { saving, toStore, reset, publish };
}
