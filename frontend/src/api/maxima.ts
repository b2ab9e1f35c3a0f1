import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** An athlete's maxima, typed in and estimated. */
export function useMaxima(athlete: number) {
  return useQuery({
    queryKey: ["maxima", athlete],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/maxima", {
          params: { path: { athlete_id: athlete } },
        }),
      ),
  });
}

export const maxima = {
  add: async (athlete: number, body: Schemas["Maximum"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/maxima", {
        params: { path: { athlete_id: athlete } },
        body,
      }),
    ),
  remove: async (athlete: number, maximum: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/maxima/{maximum}/remove", {
        params: { path: { athlete_id: athlete, maximum } },
      }),
    ),
};
