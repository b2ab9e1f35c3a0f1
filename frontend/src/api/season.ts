import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export type Season = Schemas["SeasonOut"];
export type SeasonLine = Schemas["SeasonLine"];
export type SeasonWeek = Schemas["SeasonWeekOut"];

export const useSeason = (place: WeekPlace, weeks: number) =>
  useQuery({
    queryKey: ["season", place, weeks],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/season", {
          params: { path: at(place), query: { weeks } },
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const useMovementLine = (place: WeekPlace, weeks: number, name: string) =>
  useQuery({
    queryKey: ["season", place, weeks, name],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/season/movement", {
          params: { path: at(place), query: { weeks, name } },
        }),
      ),
  });
