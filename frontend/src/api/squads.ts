import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

const COUNTING_MS = 50;
const LOOK_MS = 300;

/** A squad's week; whoever is not counted yet is counted while one asks. */
export function useSquadWeek(squad: string, week: string) {
  return useQuery({
    queryKey: ["squad", squad, week],
    queryFn: async () =>
      given(
        await client.GET("/api/squads/week", {
          params: { query: { squad, week: week || undefined } },
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.common === null ? COUNTING_MS : false),
  });
}

/** A squad's plans with some changes, audited for everybody. */
export function useSquadDraft(body: Schemas["SquadDraftBody"]) {
  return useQuery({
    queryKey: ["squad draft", body],
    queryFn: async ({ signal }) => given(await client.POST("/api/squads/draft", { body, signal })),
    // What was there last stays until the next is audited.
    placeholderData: keepPreviousData,
    enabled: body.week !== "",
  });
}

/** A proposal for a squad on its way. */
export function useSquadProposal(token: string) {
  return useQuery({
    queryKey: ["squad proposal", token],
    queryFn: async () =>
      given(await client.GET("/api/squads/proposal/{token}", { params: { path: { token } } })),
    enabled: token !== "",
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: (query) => (query.state.data?.finished === false ? LOOK_MS : false),
  });
}

export const squads = {
  propose: async (body: Schemas["SquadProposalBody"]) =>
    given(await client.POST("/api/squads/proposal", { body })),
  stop: async (token: string) =>
    given(await client.POST("/api/squads/proposal/{token}/stop", { params: { path: { token } } })),
  publish: async (body: Schemas["SquadPublishBody"]) =>
    given(await client.POST("/api/squads/publish", { body })),
};
