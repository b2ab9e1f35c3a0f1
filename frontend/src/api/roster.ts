import { useQuery } from "@tanstack/react-query";
import { client, given } from "./client";

export function useRoster() {
  return useQuery({
    queryKey: ["roster"],
    queryFn: async () => given(await client.GET("/api/roster")),
    // Whoever is not counted yet is counted while one asks.
    refetchInterval: (query) => (query.state.data?.waiting.length ? 50 : false),
  });
}
