import { type Schemas, client, given } from "./client";

const of = (athlete: number) => ({ params: { path: { athlete_id: athlete } } });

/** What is answered again and again is taken as said. */
export const habits = {
  learn: async (athlete: number, body: Schemas["HabitBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/habits", { ...of(athlete), body })),
  forget: async (athlete: number, body: Schemas["HabitBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/habits/forget", { ...of(athlete), body })),
};
