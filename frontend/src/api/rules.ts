import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

/** The rules of the house, or those of an athlete. */
export function useRules(athlete: number | null) {
  return useQuery({
    queryKey: ["rules", athlete],
    queryFn: async () =>
      athlete === null
        ? given(await client.GET("/api/rules"))
        : given(
            await client.GET("/api/athletes/{athlete_id}/rules", {
              params: { path: { athlete_id: athlete } },
            }),
          ),
  });
}

export const rules = {
  save: async (athlete: number | null, body: Schemas["SaveRulesBody"]) =>
    athlete === null
      ? given(await client.PUT("/api/rules", { body }))
      : given(
          await client.PUT("/api/athletes/{athlete_id}/rules", {
            params: { path: { athlete_id: athlete } },
            body,
          }),
        ),
  preview: async (place: WeekPlace, body: Schemas["PreviewBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/rules/preview", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  previewAll: async (body: Schemas["PreviewAllBody"], signal?: AbortSignal) =>
    given(await client.POST("/api/rules/preview", { body, signal })),
  saveSchool: async (body: Schemas["SchoolBody"]) =>
    given(await client.POST("/api/rules/schools", { body })),
  removeSchool: async (name: string) =>
    given(await client.POST("/api/rules/schools/remove", { body: { name } })),
};
