import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** What an athlete is to avoid, lifted restrictions included. */
export function useRestrictions(athlete: number) {
  return useQuery({
    queryKey: ["restrictions", athlete],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/restrictions", {
          params: { path: { athlete_id: athlete } },
        }),
      ),
  });
}

const restrictionOf = (athlete: number, restriction: number) => ({
  params: { path: { athlete_id: athlete, restriction } },
});

export const restrictions = {
  add: async (athlete: number, body: Schemas["Restriction"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/restrictions", {
        params: { path: { athlete_id: athlete } },
        body,
      }),
    ),
  lift: async (athlete: number, restriction: number, by: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/restrictions/{restriction}/lift", {
        ...restrictionOf(athlete, restriction),
        body: { by },
      }),
    ),
  restore: async (athlete: number, restriction: number) =>
    given(
      await client.POST(
        "/api/athletes/{athlete_id}/restrictions/{restriction}/restore",
        restrictionOf(athlete, restriction),
      ),
    ),
};
