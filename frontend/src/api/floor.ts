import { useQuery } from "@tanstack/react-query";
import { client, given } from "./client";

/** What is planned for today, and all that a run of one of it needs. */
export const floor = {
  day: async () => given(await client.GET("/api/floor", { params: { query: {} } })),
  run: async (plan: number) =>
    given(await client.GET("/api/floor/run", { params: { query: { plan } } })),
};

export function useFloorDay() {
  return useQuery({ queryKey: ["floor"], queryFn: floor.day });
}

export function useFloorRuns(plans: number[]) {
  return useQuery({
    queryKey: ["floor", plans],
    queryFn: () => Promise.all(plans.map(floor.run)),
    // A run goes on with what it began with.
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
  });
}
