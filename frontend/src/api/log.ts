import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

/** The week's sessions, planned beside done. */
export function useLog(place: WeekPlace) {
  return useQuery({
    queryKey: ["log", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/log", {
          params: { path: at(place) },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

const logOf = (athlete: number, id: string) => ({
  params: { path: { athlete_id: athlete, client_id: id } },
});

/** The calls of the log; `amend` and `read` store nothing. */
export const logs = {
  keep: async (athlete: number, id: string, body: Schemas["LogBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/logs/{client_id}", {
        ...logOf(athlete, id),
        body,
      }),
    ),
  remove: async (athlete: number, id: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/logs/{client_id}/remove", logOf(athlete, id)),
    ),
  restore: async (athlete: number, id: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/logs/{client_id}/restore", logOf(athlete, id)),
    ),
  missed: async (place: WeekPlace, body: Schemas["MissedBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/log/missed", {
        params: { path: at(place) },
        body,
      }),
    ),
  amend: async (place: WeekPlace, body: Schemas["AmendBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/log/amend", {
        params: { path: at(place) },
        body,
      }),
    ),
  read: async (place: WeekPlace, text: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/log/read", {
        params: { path: at(place) },
        body: { text },
      }),
    ),
  decide: async (athlete: number, version: number, keep: "stored" | "other") =>
    given(
      await client.POST("/api/athletes/{athlete_id}/versions/{version}/decide", {
        params: { path: { athlete_id: athlete, version } },
        body: { keep },
      }),
    ),
};
