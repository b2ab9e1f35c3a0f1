import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

export function useRoster() {
  return useQuery({
    queryKey: ["roster"],
    queryFn: async () => given(await client.GET("/api/roster")),
    // Whoever is not counted yet is counted while one asks.
    refetchInterval: (query) => (query.state.data?.waiting.length ? 50 : false),
  });
}

export const people = {
  read: async (text: string, signal?: AbortSignal) =>
    given(await client.POST("/api/athletes/read", { body: { text }, signal })),
  takeOn: async (text: string) => given(await client.POST("/api/athletes", { body: { text } })),
  describe: async (athlete: number, body: Schemas["AboutBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}", {
        params: { path: { athlete_id: athlete } },
        body,
      }),
    ),
};
