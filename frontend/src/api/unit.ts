import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** The unit in which weights are shown. */
export function useUnit() {
  return useQuery({
    queryKey: ["unit"],
    queryFn: async () => given(await client.GET("/api/unit")),
    staleTime: Number.POSITIVE_INFINITY,
    // Without an answer, weights are shown as they are kept.
    retry: false,
  });
}

export const unit = {
  choose: async (chosen: Schemas["UnitOut"]["unit"]) =>
    given(await client.PUT("/api/unit", { body: { unit: chosen } })),
};
