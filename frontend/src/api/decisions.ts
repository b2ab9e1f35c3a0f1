import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

const of = (athlete: number) => ({ params: { path: { athlete_id: athlete } } });
const one = (athlete: number, decision: number) => ({
  params: { path: { athlete_id: athlete, decision } },
});

/** What has been decided about an athlete. */
export function useDecisions(athlete: number) {
  return useQuery({
    queryKey: ["decisions", athlete],
    queryFn: async () =>
      given(await client.GET("/api/athletes/{athlete_id}/decisions", of(athlete))),
  });
}

export const decisions = {
  make: async (place: WeekPlace, body: Schemas["DecisionBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/decisions", {
        params: { path: at(place) },
        body,
      }),
    ),
  seePain: async (athlete: number, body: Schemas["SeenBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/decisions/pain", { ...of(athlete), body })),
  end: async (athlete: number, decision: number) =>
    given(
      await client.POST(
        "/api/athletes/{athlete_id}/decisions/{decision}/end",
        one(athlete, decision),
      ),
    ),
  restore: async (athlete: number, decision: number) =>
    given(
      await client.POST(
        "/api/athletes/{athlete_id}/decisions/{decision}/restore",
        one(athlete, decision),
      ),
    ),
};

/** Say what a week is for; null makes it an ordinary one. */
export const markWeek = async (place: WeekPlace, kind: Schemas["KindBody"]["kind"]) =>
  given(
    await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/kind", {
      params: { path: at(place) },
      body: { kind },
    }),
  );
