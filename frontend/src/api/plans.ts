import { useQuery } from "@tanstack/react-query";
import { useChange } from "./changes";
import { client, given } from "./client";

/** What was done to an athlete's plans in the last thirty days, the latest first. */
export function usePlanChanges(athlete: number) {
  return useQuery({
    queryKey: ["changes", athlete],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/changes", {
          params: { path: { athlete_id: athlete } },
        }),
      ),
  });
}

const at = (athlete: number, change: number) => ({
  params: { path: { athlete_id: athlete, change } },
});

/** Changes of plans taken back, and made again. */
export const planChanges = {
  undo: async (athlete: number, change: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/changes/{change}/undo", at(athlete, change)),
    ),
  redo: async (athlete: number, change: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/changes/{change}/redo", at(athlete, change)),
    ),
};

/** Changes of an athlete's plans to be taken back or made again. */
export function useTakingBack(athlete: number) {
  const undo = useChange((change: number) => planChanges.undo(athlete, change));
  const redo = useChange((change: number) => planChanges.redo(athlete, change));
  return {
    swap: (change: { id: number; undone: boolean }) =>
      (change.undone ? redo : undo).mutate(change.id),
    busy: undo.isPending || redo.isPending,
    error: undo.error ?? redo.error,
  };
}
