import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

type NewcomersBody = Schemas["NewcomersBody"];

export function useRoster() {
  return useQuery({
    queryKey: ["roster"],
    queryFn: async () => given(await client.GET("/api/roster")),
    // Whoever is not counted yet is counted while one asks.
    refetchInterval: (query) => (query.state.data?.waiting.length ? 50 : false),
  });
}

export const people = {
  read: async (body: NewcomersBody, signal?: AbortSignal) =>
    given(await client.POST("/api/athletes/read", { body, signal })),
  takeOn: async (body: NewcomersBody) => given(await client.POST("/api/athletes", { body })),
  describe: async (athlete: number, body: Schemas["AboutBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}", {
        params: { path: { athlete_id: athlete } },
        body,
      }),
    ),
};
