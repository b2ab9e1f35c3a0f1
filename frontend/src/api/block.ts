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

/** What changed from the block before; asked for when it is looked at. */
export function useSince(place: WeekPlace, open: boolean) {
  return useQuery({
    queryKey: ["since", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/block/since", {
          params: { path: at(place) },
        }),
      ),
    enabled: open,
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
};

/** The wave of a block: its weeks proposed one after the other, and published together. */
export const wave = {
  propose: async (place: WeekPlace, body: Schemas["WaveBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/wave", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  publish: async (place: WeekPlace, body: Schemas["PublishWaveBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/wave/publish", {
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
