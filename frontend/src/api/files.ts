import { useQuery } from "@tanstack/react-query";
import { client, given } from "./client";

/** The book goes as it is: the server's reader tells line and column of a mistake. */
const asItIs = (text: string) => ({
  body: text as never,
  bodySerializer: (body: unknown) => body as string,
  headers: { "Content-Type": "application/json" },
});

export const files = {
  look: async (text: string) => given(await client.POST("/api/import/look", asItIs(text))),
  import: async (text: string, options: { name?: string; replace?: boolean }) =>
    given(await client.POST("/api/import", { params: { query: options }, ...asItIs(text) })),
  remove: async (athlete: number) =>
    given(
      await client.DELETE("/api/athletes/{athlete_id}", {
        params: { path: { athlete_id: athlete } },
      }),
    ),
  restore: async (athlete: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/restore", {
        params: { path: { athlete_id: athlete } },
      }),
    ),
  deleteForGood: async (athlete: number, name: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/delete", {
        params: { path: { athlete_id: athlete } },
        body: { name },
      }),
    ),
};

/** Who was taken off the roster. */
export function useArchived() {
  return useQuery({
    queryKey: ["archived"],
    queryFn: async () => given(await client.GET("/api/athletes/archived")),
  });
}

/** The daily copies of the data file. */
export function useCopies() {
  return useQuery({
    queryKey: ["copies"],
    queryFn: async () => given(await client.GET("/api/copies")),
  });
}
