import { useQuery } from "@tanstack/react-query";
import { client, given } from "./client";

export function useRoster() {
  return useQuery({
    queryKey: ["roster"],
    queryFn: async () => given(await client.GET("/api/roster")),
  });
}
