import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export function useWritten(place: WeekPlace) {
  return useQuery({
    queryKey: ["written", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/written", {
          params: { path: at(place) },
        }),
      ),
    // What is being typed is newer than what is stored.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
}

export function useMovementNames(place: WeekPlace) {
  return useQuery({
    queryKey: ["movements", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/movements", {
          params: { path: at(place) },
        }),
      ),
  });
}

/** The words of the notation: they change with the program only. */
export function useNotation() {
  return useQuery({
    queryKey: ["notation"],
    staleTime: Infinity,
    queryFn: async () => given(await client.GET("/api/notation")),
  });
}

/** The calls of writing; `check` stores nothing. */
export const writing = {
  check: async (place: WeekPlace, body: Schemas["TextBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/check", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  add: async (place: WeekPlace, body: Schemas["AddTextBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written", {
        params: { path: at(place) },
        body,
      }),
    ),
  save: async (place: WeekPlace, session: number, body: Schemas["SaveTextBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/written/{session}", {
        params: { path: { ...at(place), session } },
        body,
      }),
    ),
  remove: async (place: WeekPlace, session: number, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/{session}/remove", {
        params: { path: { ...at(place), session } },
        body: { revision },
      }),
    ),
  restore: async (place: WeekPlace, session: number, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/{session}/restore", {
        params: { path: { ...at(place), session } },
        body: { revision },
      }),
    ),
};

/** The calls of the form beside the text; they store nothing. */
export const form = {
  rows: async (athlete: number, text: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/form/rows", {
        params: { path: { athlete_id: athlete } },
        body: { text },
      }),
    ),
  line: async (athlete: number, row: Schemas["RowOut"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/form/line", {
        params: { path: { athlete_id: athlete } },
        body: row,
      }),
    ),
};
