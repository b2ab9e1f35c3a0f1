import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Refusal, type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import type { State } from "./useDialDraft";

export type Saving = "stored" | "changed" | "saving" | "stale" | "failed";

const SAVE_AFTER_MS = 700;

/** A draft is stored soon after it was changed, one write after the other, and published. */
export function useDraftStore(
  place: WeekPlace,
  opened: Schemas["DraftOut"],
  /** The draft as it now stands. */
  inHand: () => State,
  state: State,
  setError: (says: string) => void,
) {
  const [saving, setSaving] = useState<Saving>("stored");
  const revision = useRef(opened.revision);
  const queries = useQueryClient();
  // Each write goes by the revision that the one before it left.
  const { mutateAsync: inTurn } = useMutation({
    scope: { id: `draft ${place.athlete} ${place.week}` },
    mutationFn: (write: () => Promise<void>) => write(),
  });
  const toStore = useCallback(() => setSaving("changed"), []);

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
  }, [saving, state, place, body, inTurn, setError]);

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
