import { useQuery } from "@tanstack/react-query";
import { client, given } from "./client";

/** What the house is called. */
export function useHouse() {
  return useQuery({
    queryKey: ["house"],
    queryFn: async () => given(await client.GET("/api/house")),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
}

export const house = {
  name: async (name: string) => given(await client.PUT("/api/house", { body: { name } })),
};
