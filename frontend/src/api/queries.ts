import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Basis, type Schemas, client, given } from "./client";

/** An athlete and an ISO week: where most questions are asked. */
export interface WeekPlace {
  athlete: number;
  week: string;
}

const at = (place: WeekPlace) => ({ athlete_id: place.athlete, week: place.week });

export function useRoster() {
  return useQuery({
    queryKey: ["roster"],
    queryFn: async () => given(await client.GET("/api/roster")),
  });
}

export function useFrame(place: WeekPlace, enabled = true) {
  return useQuery({
    queryKey: ["frame", place],
    enabled,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}", {
          params: { path: at(place) },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useSheet(place: WeekPlace, basis: Basis, enabled: boolean) {
  return useQuery({
    queryKey: ["sheet", place, basis],
    enabled,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/sheet", {
          params: { path: at(place), query: { basis } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useTrail(place: WeekPlace, basis: Basis, figure: string | null, days = "") {
  return useQuery({
    queryKey: ["trail", place, basis, figure, days],
    enabled: figure !== null,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/trail", {
          params: { path: at(place), query: { figure: figure ?? "", basis, days } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useDraft(place: WeekPlace) {
  return useQuery({
    queryKey: ["draft", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/draft", {
          params: { path: at(place) },
        }),
      ),
    // The draft in hand is the newer one: it is not fetched again behind the coach's back.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
}

/** The calls of the dial; they store nothing but `save`, `reset` and `publish`. */
export const dial = {
  audit: async (place: WeekPlace, sessions: Schemas["DraftSession"][], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/audit", {
        params: { path: at(place) },
        body: { sessions },
        signal,
      }),
    ),
  turn: async (
    place: WeekPlace,
    sessions: Schemas["DraftSession"][],
    total: number,
    toward: Schemas["DialBody"]["toward"],
    signal?: AbortSignal,
  ) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/dial", {
        params: { path: at(place) },
        body: { sessions, total, toward },
        signal,
      }),
    ),
  notches: async (place: WeekPlace, sessions: Schemas["DraftSession"][], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/notches", {
        params: { path: at(place) },
        body: { sessions },
        signal,
      }),
    ),
  propose: async (place: WeekPlace, body: Schemas["ProposalBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/proposal", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
  take: async (
    place: WeekPlace,
    sessions: Schemas["DraftSession"][],
    steps: Schemas["TakeStep"][],
    signal?: AbortSignal,
  ) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/take", {
        params: { path: at(place) },
        body: { sessions, steps },
        signal,
      }),
    ),
  save: async (place: WeekPlace, body: Schemas["SaveDraftBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/draft", {
        params: { path: at(place) },
        body,
      }),
    ),
  reset: async (place: WeekPlace, revision: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/reset", {
        params: { path: at(place) },
        body: { revision },
      }),
    ),
  publish: async (place: WeekPlace, body: Schemas["SaveDraftBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/draft/publish", {
        params: { path: at(place) },
        body,
      }),
    ),
};

export const useSchools = (place: WeekPlace, basis: Basis, enabled: boolean) =>
  useQuery({
    queryKey: ["schools", place, basis],
    enabled,
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/schools", {
          params: { path: at(place), query: { basis } },
        }),
      ),
  });

/** A change of what is stored; everything shown is asked for anew. */
export function useChange<In, Out>(change: (input: In) => Promise<Out>) {
  const queries = useQueryClient();
  return useMutation({ mutationFn: change, onSuccess: () => queries.invalidateQueries() });
}

/** Work that stores nothing: nothing shown gets old by it. */
export function useLook<In, Out>(look: (input: In) => Promise<Out>) {
  return useMutation({ mutationFn: look });
}

export const judge = {
  accept: async (place: WeekPlace, body: Schemas["AcceptBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances", {
        params: { path: at(place) },
        body,
      }),
    ),
  reopen: async (place: WeekPlace, body: Schemas["FindingKey"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances/withdraw", {
        params: { path: at(place) },
        body,
      }),
    ),
  acceptCause: async (place: WeekPlace, body: Schemas["AcceptCauseBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances/cause", {
        params: { path: at(place) },
        body,
      }),
    ),
  reopenCause: async (place: WeekPlace, body: Schemas["CauseKey"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/acceptances/cause/withdraw", {
        params: { path: at(place) },
        body,
      }),
    ),
  sign: async (place: WeekPlace, name: string) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/weeks/{week}/signature", {
        params: { path: at(place) },
        body: { name },
      }),
    ),
  unsign: async (place: WeekPlace) =>
    given(
      await client.DELETE("/api/athletes/{athlete_id}/weeks/{week}/signature", {
        params: { path: at(place) },
      }),
    ),
};

/** The rules of the house, or those of an athlete. */
export function useRules(athlete: number | null) {
  return useQuery({
    queryKey: ["rules", athlete],
    queryFn: async () =>
      athlete === null
        ? given(await client.GET("/api/rules"))
        : given(
            await client.GET("/api/athletes/{athlete_id}/rules", {
              params: { path: { athlete_id: athlete } },
            }),
          ),
  });
}

export const rules = {
  save: async (athlete: number | null, body: Schemas["SaveRulesBody"]) =>
    athlete === null
      ? given(await client.PUT("/api/rules", { body }))
      : given(
          await client.PUT("/api/athletes/{athlete_id}/rules", {
            params: { path: { athlete_id: athlete } },
            body,
          }),
        ),
  preview: async (place: WeekPlace, body: Schemas["PreviewBody"], signal?: AbortSignal) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/rules/preview", {
        params: { path: at(place) },
        body,
        signal,
      }),
    ),
};

export const files = {
  /** The book goes as it is: the server's reader tells line and column of a mistake. */
  import: async (text: string, options: { name?: string; replace?: boolean }) =>
    given(
      await client.POST("/api/import", {
        params: { query: options },
        body: text as never,
        bodySerializer: (body: unknown) => body as string,
        headers: { "Content-Type": "application/json" },
      }),
    ),
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
};

export function useWritten(place: WeekPlace) {
  return useQuery({
    queryKey: ["written", place],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/written", {
          params: { path: at(place) },
        }),
      ),
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
  return useQuery({ queryKey: ["notation"], staleTime: Infinity, queryFn: async () => given(await client.GET("/api/notation")) });
}

/** An athlete's maxima, typed in and estimated. */
export function useMaxima(athlete: number) {
  return useQuery({
    queryKey: ["maxima", athlete],
    queryFn: async () => given(await client.GET("/api/athletes/{athlete_id}/maxima", { params: { path: { athlete_id: athlete } } })),
  });
}

export const maxima = {
  add: async (athlete: number, body: Schemas["Maximum"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/maxima", { params: { path: { athlete_id: athlete } }, body })),
  remove: async (athlete: number, maximum: number) =>
    given(await client.POST("/api/athletes/{athlete_id}/maxima/{maximum}/remove", { params: { path: { athlete_id: athlete, maximum } } })),
};

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

export function useBlock(place: WeekPlace, weeks: number) {
  return useQuery({
    queryKey: ["block", place, weeks],
    queryFn: async () =>
      given(
        await client.GET("/api/athletes/{athlete_id}/weeks/{week}/block", {
          params: { path: at(place), query: { weeks } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export const block = {
  lay: async (place: WeekPlace, body: Schemas["LayBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/lay", {
        params: { path: at(place) },
        body,
      }),
    ),
  undo: async (place: WeekPlace, body: Schemas["Laid"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/undo", {
        params: { path: at(place) },
        body,
      }),
    ),
};

/** The movements of the house. */
export function useMovements() {
  return useQuery({
    queryKey: ["movements"],
    queryFn: async () => given(await client.GET("/api/movements")),
  });
}

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

/** Blocks that are stored, and text that comes in. */
export const blocks = {
  add: async (place: WeekPlace, body: Schemas["NewBlockBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/new", { params: { path: at(place) }, body })),
  change: async (athlete: number, block: number, body: Schemas["BlockBody"]) =>
    given(
      await client.PUT("/api/athletes/{athlete_id}/blocks/{block}", {
        params: { path: { athlete_id: athlete, block } },
        body,
      }),
    ),
  remove: async (athlete: number, block: number) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/blocks/{block}/remove", {
        params: { path: { athlete_id: athlete, block } },
      }),
    ),
  takeText: async (place: WeekPlace, text: string) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/block/text", {
        params: { path: at(place) },
        body: { text },
      }),
    ),
};

export function useTemplates() {
  return useQuery({
    queryKey: ["templates"],
    queryFn: async () => given(await client.GET("/api/templates")),
  });
}

export const templates = {
  keep: async (place: WeekPlace, body: Schemas["TemplateBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/weeks/{week}/template", { params: { path: at(place) }, body })),
  lay: async (template: number, body: Schemas["LayTemplateBody"]) =>
    given(await client.POST("/api/templates/{template}/lay", { params: { path: { template } }, body })),
  undo: async (body: Schemas["TemplateLaid"]) => given(await client.POST("/api/templates/undo", { body })),
  remove: async (template: number) =>
    given(await client.POST("/api/templates/{template}/remove", { params: { path: { template } } })),
  restore: async (template: number) =>
    given(await client.POST("/api/templates/{template}/restore", { params: { path: { template } } })),
};

/** What an athlete is to avoid, lifted restrictions included. */
export function useRestrictions(athlete: number) {
  return useQuery({
    queryKey: ["restrictions", athlete],
    queryFn: async () =>
      given(await client.GET("/api/athletes/{athlete_id}/restrictions", { params: { path: { athlete_id: athlete } } })),
  });
}

const restrictionOf = (athlete: number, restriction: number) => ({ params: { path: { athlete_id: athlete, restriction } } });

export const restrictions = {
  add: async (athlete: number, body: Schemas["Restriction"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/restrictions", { params: { path: { athlete_id: athlete } }, body })),
  lift: async (athlete: number, restriction: number, by: string) =>
    given(await client.POST("/api/athletes/{athlete_id}/restrictions/{restriction}/lift", { ...restrictionOf(athlete, restriction), body: { by } })),
  restore: async (athlete: number, restriction: number) =>
    given(await client.POST("/api/athletes/{athlete_id}/restrictions/{restriction}/restore", restrictionOf(athlete, restriction))),
};

export function useKit() {
  return useQuery({ queryKey: ["kit"], queryFn: async () => given(await client.GET("/api/kit")) });
}

export const kit = {
  save: async (body: Schemas["KitBody"]) => given(await client.PUT("/api/kit", { body })),
};

/** Changing the house's movements; `effect` stores nothing. */
export const movement = {
  add: async (body: Schemas["MovementBody"]) => given(await client.POST("/api/movements", { body })),
  effect: async (id: number, body: Schemas["MovementBody"]) =>
    given(await client.POST("/api/movements/{movement}/effect", { params: { path: { movement: id } }, body })),
  save: async (id: number, body: Schemas["MovementBody"]) =>
    given(await client.PUT("/api/movements/{movement}", { params: { path: { movement: id } }, body })),
  remove: async (id: number) =>
    given(await client.DELETE("/api/movements/{movement}", { params: { path: { movement: id } } })),
};

/** The week's sessions, planned beside done. */
export function useLog(place: WeekPlace) {
  return useQuery({
    queryKey: ["log", place],
    queryFn: async () =>
      given(await client.GET("/api/athletes/{athlete_id}/weeks/{week}/log", { params: { path: at(place) } })),
    placeholderData: keepPreviousData,
  });
}

const logOf = (athlete: number, id: string) => ({ params: { path: { athlete_id: athlete, client_id: id } } });

/** The calls of the log; `amend` and `read` store nothing. */
export const logs = {
  keep: async (athlete: number, id: string, body: Schemas["LogBody"]) =>
    given(await client.PUT("/api/athletes/{athlete_id}/logs/{client_id}", { ...logOf(athlete, id), body })),
  remove: async (athlete: number, id: string) =>
    given(await client.POST("/api/athletes/{athlete_id}/logs/{client_id}/remove", logOf(athlete, id))),
  restore: async (athlete: number, id: string) =>
    given(await client.POST("/api/athletes/{athlete_id}/logs/{client_id}/restore", logOf(athlete, id))),
  amend: async (place: WeekPlace, body: Schemas["AmendBody"]) =>
    given(await client.POST("/api/athletes/{athlete_id}/weeks/{week}/log/amend", { params: { path: at(place) }, body })),
  read: async (place: WeekPlace, text: string) =>
    given(await client.POST("/api/athletes/{athlete_id}/weeks/{week}/log/read", { params: { path: at(place) }, body: { text } })),
  decide: async (athlete: number, version: number, keep: "stored" | "other") =>
    given(
      await client.POST("/api/athletes/{athlete_id}/versions/{version}/decide", {
        params: { path: { athlete_id: athlete, version } },
        body: { keep },
      }),
    ),
};

/** What is planned for today, and all that a run of one of it needs. */
export const floor = {
  day: async () => given(await client.GET("/api/floor", { params: { query: {} } })),
  run: async (plan: number) => given(await client.GET("/api/floor/run", { params: { query: { plan } } })),
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

type Job = Schemas["JobOut"];
const LOOK_MS = 250;

/** Look at a piece of work until it is finished; what went wrong is thrown. */
async function finished(job: Job, seen: (job: Job) => void): Promise<Job> {
  let now = job;
  while (!now.finished) {
    await new Promise((resolve) => { setTimeout(resolve, LOOK_MS); });
    now = given(await client.GET("/api/sheets/{token}", { params: { path: { token: job.token } } }));
    seen(now);
  }
  if (now.problem !== null) throw new Error(now.problem);
  return now;
}

/** Spreadsheets of logs: read, look, store, undo. Long work tells how far it is. */
export const sheets = {
  read: async (file: File, seen: (job: Job) => void) =>
    finished(
      given(
        await client.POST("/api/sheets", {
          params: { query: { name: file.name } },
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
      seen,
    ),
  preview: async (token: string, body: Schemas["SheetChoice"], seen: (job: Job) => void) =>
    finished(given(await client.POST("/api/sheets/{token}/preview", { params: { path: { token } }, body })), seen),
  store: async (token: string, body: Schemas["SheetChoice"], seen: (job: Job) => void) =>
    finished(given(await client.POST("/api/sheets/{token}/store", { params: { path: { token } }, body })), seen),
  undo: async (number: number) =>
    given(await client.POST("/api/imports/{number}/undo", { params: { path: { number } } })),
};

export function useImports() {
  return useQuery({ queryKey: ["imports"], queryFn: async () => given(await client.GET("/api/imports")) });
}

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
  choose: async (chosen: Schemas["UnitOut"]["unit"]) => given(await client.PUT("/api/unit", { body: { unit: chosen } })),
};
