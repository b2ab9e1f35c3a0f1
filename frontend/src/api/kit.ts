import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

export function useKit() {
  return useQuery({ queryKey: ["kit"], queryFn: async () => given(await client.GET("/api/kit")) });
}

export const kit = {
  begin: async (body: Schemas["BeginKitBody"]) =>
    given(await client.POST("/api/kit/begin", { body })),
  save: async (body: Schemas["KitBody"]) => given(await client.PUT("/api/kit", { body })),
};
