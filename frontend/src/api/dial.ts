import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export function useDraft(place: WeekPlace) {
  return useQuery({
    queryKey: ["draft", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/draft", {
          params: { path: at(place) },
        }),
      ),
    // The draft in hand is the newer one: it is not fetched again behind the coach's back.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
}

/** The calls of the dial; they store nothing but `save`, `reset` and `publish`. */
export const dial = {
  audit: async (place: WeekPlace, sessions: Schemas["DraftSession"][], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/audit", {
        params: { path: at(place) },
        body: { sessions },
        signal,
      }),
    ),
  turn: async (
    place: WeekPlace,
    sessions: Schemas["DraftSession"][],
    on: Schemas["SubjectBody"],
    setting: number,
    toward: Schemas["DialBody"]["toward"],
    signal?: AbortSignal,
  ) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/dial", {
        params: { path: at(place) },
        body: { sessions, on, setting, toward },
        signal,
      }),
    ),
  notches: async (
    place: WeekPlace,
    sessions: Schemas["DraftSession"][],
    on: Schemas["SubjectBody"],
    signal?: AbortSignal,
  ) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/notches", {
        params: { path: at(place) },
        body: { sessions, on },
        signal,
      }),
    ),
  propose: async (place: WeekPlace, body: Schemas["ProposalBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/proposal", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  take: async (
    place: WeekPlace,
    sessions: Schemas["DraftSession"][],
    steps: Schemas["TakeStep"][],
    signal?: AbortSignal,
  ) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/take", {
        params: { path: at(place) },
        body: { sessions, steps },
        signal,
      }),
    ),
  decline: async (place: WeekPlace, steps: Schemas["DeclinedStep"][]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/decline", {
        params: { path: at(place) },
        body: { steps, reason: "" },
      }),
    ),
  next: async (place: WeekPlace, sessions: Schemas["DraftSession"][], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/next", {
        params: { path: at(place) },
        body: { sessions },
        signal,
      }),
    ),
  takeNext: async (
    place: WeekPlace,
    sessions: Schemas["DraftSession"][],
    steps: Schemas["TakeNext"][],
    signal?: AbortSignal,
  ) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/next/take", {
        params: { path: at(place) },
        body: { sessions, steps },
        signal,
      }),
    ),
  /** The movements that could be added to a session, or stand in for a line of it. */
  candidates: async (place: WeekPlace, body: Schemas["CandidatesBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/movements", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  put: async (place: WeekPlace, body: Schemas["PutMovementBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/put", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  changes: async (place: WeekPlace, sessions: Schemas["DraftSession"][], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/changes", {
        params: { path: at(place) },
        body: { sessions },
        signal,
      }),
    ),
  save: async (place: WeekPlace, body: Schemas["SaveDraftBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/draft", {
        params: { path: at(place) },
        body,
      }),
    ),
  reset: async (place: WeekPlace, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/reset", {
        params: { path: at(place) },
        body: { revision },
      }),
    ),
  publish: async (place: WeekPlace, body: Schemas["PublishBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/publish", {
        params: { path: at(place) },
        body,
      }),
    ),
};
