import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export function useBlock(place: WeekPlace, weeks: number) {
  return useQuery({
    queryKey: ["block", place, weeks],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/block", {
          params: { path: at(place), query: { weeks } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export const block = {
  lay: async (place: WeekPlace, body: Schemas["LayBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/lay", {
        params: { path: at(place) },
        body,
      }),
    ),
  undo: async (place: WeekPlace, body: Schemas["Laid"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/undo", {
        params: { path: at(place) },
        body,
      }),
    ),
};

/** Blocks that are stored, and text that comes in. */
export const blocks = {
  add: async (place: WeekPlace, body: Schemas["NewBlockBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/new", {
        params: { path: at(place) },
        body,
      }),
    ),
  change: async (athlete: number, block: number, body: Schemas["BlockBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/blocks/{block}", {
        params: { path: { athlete_id: athlete, block } },
        body,
      }),
    ),
  remove: async (athlete: number, block: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/blocks/{block}/remove", {
        params: { path: { athlete_id: athlete, block } },
      }),
    ),
  takeText: async (place: WeekPlace, text: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/text", {
        params: { path: at(place) },
        body: { text },
      }),
    ),
};
