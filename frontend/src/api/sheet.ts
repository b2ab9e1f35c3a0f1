import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Basis, type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export function useFrame(place: WeekPlace, enabled = true) {
  return useQuery({
    queryKey: ["frame", place],
    enabled,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}", {
          params: { path: at(place) },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useSheet(place: WeekPlace, basis: Basis, enabled: boolean) {
  return useQuery({
    queryKey: ["sheet", place, basis],
    enabled,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/sheet", {
          params: { path: at(place), query: { basis } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useTrail(place: WeekPlace, basis: Basis, figure: string | null, days = "") {
  return useQuery({
    queryKey: ["trail", place, basis, figure, days],
    enabled: figure !== null,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/trail", {
          params: { path: at(place), query: { figure: figure ?? "", basis, days } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export const useSchools = (place: WeekPlace, basis: Basis, enabled: boolean) =>
  useQuery({
    queryKey: ["schools", place, basis],
    enabled,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/schools", {
          params: { path: at(place), query: { basis } },
        }),
      ),
  });

/** Where the document of a signed week is. */
export const signedPath = ({ athlete, week }: WeekPlace): string =>
  `/api/athletes/${athlete}/weeks/${week}/signature/document`;

/** Where a page to print is: of the week or its block, for the coach's file or the athlete. */
export const reportPath = (
  { athlete, week }: WeekPlace,
  of: "week" | "block" | "since",
  reader: "coach" | "athlete",
): string => `/api/athletes/${athlete}/weeks/${week}/report?of=${of}&for=${reader}`;

export const judge = {
  declineOffer: async (place: WeekPlace, body: Schemas["OfferKey"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/offer/decline", {
        params: { path: at(place) },
        body,
      }),
    ),
  accept: async (place: WeekPlace, body: Schemas["AcceptBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances", {
        params: { path: at(place) },
        body,
      }),
    ),
  reopen: async (place: WeekPlace, body: Schemas["FindingKey"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances/withdraw", {
        params: { path: at(place) },
        body,
      }),
    ),
  acceptCause: async (place: WeekPlace, body: Schemas["AcceptCauseBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances/cause", {
        params: { path: at(place) },
        body,
      }),
    ),
  reopenCause: async (place: WeekPlace, body: Schemas["CauseKey"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances/cause/withdraw", {
        params: { path: at(place) },
        body,
      }),
    ),
  sign: async (place: WeekPlace, name: string) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/signature", {
        params: { path: at(place) },
        body: { name },
      }),
    ),
  unsign: async (place: WeekPlace) =>
    given(
      await client.DELETE("/api/athletes/{athlete_id}/weeks/{week}/signature", {
        params: { path: at(place) },
      }),
    ),
};
