import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** What is said at a movement. */
export function useCues(movement: number) {
  return useQuery({
    queryKey: ["cues", movement],
    queryFn: async () =>
      given(await client.GET("/api/movements/{movement}/cues", { params: { path: { movement } } })),
  });
}

/** The house's own words for a movement; null: those that ship hold again. */
export const saveCues = async (movement: number, cues: Schemas["Cues"] | null) =>
  given(
    await client.PUT("/api/movements/{movement}/cues", {
      params: { path: { movement } },
      body: { cues },
    }),
  );

/**
 * Tell one athlete something at a movement. A run goes on with what it began with: what is told from
 * now on is put into it.
 */
export function useOwnCue(athlete: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (cue: Schemas["OwnCue"]) =>
      given(
        await client.PUT("/api/athletes/{athlete_id}/cues", {
          params: { path: { athlete_id: athlete } },
          body: cue,
        }),
      ),
    onSuccess: ({ cues }) => {
      queries.setQueriesData<unknown>({ queryKey: ["floor"] }, (known: unknown) =>
        Array.isArray(known)
          ? (known as Schemas["FloorRun"][]).map((one) =>
              one.run.athlete === athlete ? { ...one, run: { ...one.run, own_cues: cues } } : one,
            )
          : known,
      );
    },
  });
}
