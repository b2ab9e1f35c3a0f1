import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

const of = (athlete: number) => ({ params: { path: { athlete_id: athlete } } });

/** What asks for care about an athlete, and what the athlete weighed. */
export function useCare(athlete: number) {
  return useQuery({
    queryKey: ["care", athlete],
    queryFn: async () => given(await client.GET("/api/athletes/{athlete_id}/care", of(athlete))),
  });
}

const caution = (athlete: number, number: number) => ({
  params: { path: { athlete_id: athlete, caution: number } },
});

export const care = {
  add: async (athlete: number, body: Schemas["Caution"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/care/cautions", { ...of(athlete), body })),
  end: async (athlete: number, number: number) =>
    given(
      await client.POST(
        "/api/athletes/{athlete_id}/care/cautions/{caution}/end",
        caution(athlete, number),
      ),
    ),
  restore: async (athlete: number, number: number) =>
    given(
      await client.POST(
        "/api/athletes/{athlete_id}/care/cautions/{caution}/restore",
        caution(athlete, number),
      ),
    ),
  weigh: async (athlete: number, body: Schemas["WeighBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/care/weighings", { ...of(athlete), body })),
  unweigh: async (athlete: number, weighing: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/care/weighings/{weighing}/remove", {
        params: { path: { athlete_id: athlete, weighing } },
      }),
    ),
};
