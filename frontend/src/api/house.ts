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

/** Who of the made-up club is here. */
export function useClub() {
  return useQuery({
    queryKey: ["house", "club"],
    queryFn: async () => given(await client.GET("/api/house/club")),
  });
}

export const house = {
  loadClub: async () => given(await client.POST("/api/house/club")),
  removeClub: async () => given(await client.POST("/api/house/club/remove")),
  name: async (name: string) => given(await client.PUT("/api/house", { body: { name } })),
};
