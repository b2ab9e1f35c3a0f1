import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export function useWritten(place: WeekPlace) {
  return useQuery({
    queryKey: ["written", place],
    queryFn: async () => {
      await savesOf(place);
      return given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/written", {
          params: { path: at(place) },
        }),
      );
    },
    // What is being typed is newer than what is stored.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
}

export function useMovementNames(place: WeekPlace) {
  return useQuery({
    queryKey: ["movements", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/movements", {
          params: { path: at(place) },
        }),
      ),
  });
}

/** The words of the notation: they change with the program only. */
export function useNotation() {
  return useQuery({
    queryKey: ["notation"],
    staleTime: Infinity,
    queryFn: async () => given(await client.GET("/api/notation")),
  });
}

/** A session that is written. */
export interface Sheet {
  /** Its number; null until it is stored for the first time. */
  id: number | null;
  date: string;
  title: string;
  text: string;
  revision: number;
}

/** What a save leaves: the session as it is stored now; null where it was refused. */
type Save = Promise<Sheet | null>;

/** This window's saves that have no answer yet, by week and session. */
const underWay = new Map<string, Save>();

const weekOf = (place: WeekPlace) => `${place.athlete}/${place.week}/`;

/** Note a save that has gone out; it never rejects. */
export function noteSave(place: WeekPlace, session: string, save: Save): void {
  const key = weekOf(place) + session;
  underWay.set(key, save);
  void save.then(() => {
    if (underWay.get(key) === save) underWay.delete(key);
  });
}

/** The save of a session that is on its way. */
export const saveUnderWay = (place: WeekPlace, session: string): Save | undefined =>
  underWay.get(weekOf(place) + session);

/** Wait for a week's saves: what is read before they are there is old when it comes. */
async function savesOf(place: WeekPlace): Promise<void> {
  const own = [...underWay].filter(([key]) => key.startsWith(weekOf(place)));
  await Promise.all(own.map(([, save]) => save));
}

/** The calls of writing; `check` stores nothing. */
export const writing = {
  check: async (place: WeekPlace, body: Schemas["TextBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/check", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  add: async (place: WeekPlace, body: Schemas["AddTextBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written", {
        params: { path: at(place) },
        body,
      }),
    ),
  save: async (place: WeekPlace, session: number, body: Schemas["SaveTextBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/written/{session}", {
        params: { path: { ...at(place), session } },
        body,
      }),
    ),
  /** Each day in the text becomes a session of its own. */
  days: async (place: WeekPlace, session: number, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/{session}/days", {
        params: { path: { ...at(place), session } },
        body: { revision },
      }),
    ),
  remove: async (place: WeekPlace, session: number, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/{session}/remove", {
        params: { path: { ...at(place), session } },
        body: { revision },
      }),
    ),
  restore: async (place: WeekPlace, session: number, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/written/{session}/restore", {
        params: { path: { ...at(place), session } },
        body: { revision },
      }),
    ),
};

/** The calls of the form beside the text; they store nothing. */
export const form = {
  rows: async (athlete: number, text: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/form/rows", {
        params: { path: { athlete_id: athlete } },
        body: { text },
      }),
    ),
  line: async (athlete: number, row: Schemas["RowOut"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/form/line", {
        params: { path: { athlete_id: athlete } },
        body: row,
      }),
    ),
};
