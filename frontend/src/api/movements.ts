import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** The movements of the house. */
export function useMovements() {
  return useQuery({
    queryKey: ["movements"],
    queryFn: async () => given(await client.GET("/api/movements")),
  });
}

/** Changing the house's movements; `effect` stores nothing. */
export const movement = {
  add: async (body: Schemas["MovementBody"]) =>
    given(await client.POST("/api/movements", { body })),
  addLike: async (body: Schemas["LikeBody"]) =>
    given(await client.POST("/api/movements/like", { body })),
  effect: async (id: number, body: Schemas["MovementBody"]) =>
    given(
      await client.POST("/api/movements/{movement}/effect", {
        params: { path: { movement: id } },
        body,
      }),
    ),
  save: async (id: number, body: Schemas["MovementBody"]) =>
    given(
      await client.PUT("/api/movements/{movement}", { params: { path: { movement: id } }, body }),
    ),
  naming: async (id: number, name: string) =>
    given(
      await client.POST("/api/movements/{movement}/naming", {
        params: { path: { movement: id } },
        body: { name },
      }),
    ),
  giveName: async (id: number, name: string) =>
    given(
      await client.PUT("/api/movements/{movement}/name", {
        params: { path: { movement: id } },
        body: { name },
      }),
    ),
  remove: async (id: number) =>
    given(await client.DELETE("/api/movements/{movement}", { params: { path: { movement: id } } })),
};
