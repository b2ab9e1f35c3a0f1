import { useQuery } from "@tanstack/react-query";
import { client, given } from "./client";

/** What is planned for today, and all that a run of one of it needs. */
export const floor = {
  day: async (day?: string) =>
    given(await client.GET("/api/floor", { params: { query: day ? { day } : {} } })),
  run: async (plan: number) =>
    given(await client.GET("/api/floor/run", { params: { query: { plan } } })),
};

/** What is planned for a day; for today where none is given. */
export function useFloorDay(day: string | undefined) {
  return useQuery({ queryKey: ["floor", day ?? ""], queryFn: () => floor.day(day) });
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
