import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** The athlete's goals, and how each stands today. */
export function useGoals(athlete: number) {
  return useQuery({
    queryKey: ["goals", athlete],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/goals", {
          params: { path: { athlete_id: athlete } },
        }),
      ),
  });
}

const at = (athlete: number, goal: number) => ({ params: { path: { athlete_id: athlete, goal } } });

export const goals = {
  set: async (athlete: number, body: Schemas["GoalBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/goals", {
        params: { path: { athlete_id: athlete } },
        body,
      }),
    ),
  remove: async (athlete: number, goal: number) =>
    given(await client.POST("/api/athletes/{athlete_id}/goals/{goal}/remove", at(athlete, goal))),
  restore: async (athlete: number, goal: number) =>
    given(await client.POST("/api/athletes/{athlete_id}/goals/{goal}/restore", at(athlete, goal))),
};
