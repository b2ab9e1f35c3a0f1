import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

type Job = Schemas["JobOut"];

const LOOK_MS = 250;

/** Look at a piece of work until it is finished; what went wrong is thrown. */
async function finished(job: Job, seen: (job: Job) => void): Promise<Job> {
  let now = job;
  while (!now.finished) {
    await new Promise((resolve) => {
      setTimeout(resolve, LOOK_MS);
    });
    now = given(
      await client.GET("/api/sheets/{token}", { params: { path: { token: job.token } } }),
    );
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
    finished(
      given(
        await client.POST("/api/sheets/{token}/preview", { params: { path: { token } }, body }),
      ),
      seen,
    ),
  store: async (token: string, body: Schemas["SheetChoice"], seen: (job: Job) => void) =>
    finished(
      given(await client.POST("/api/sheets/{token}/store", { params: { path: { token } }, body })),
      seen,
    ),
  /** The rows that are left out, as a file to keep. */
  left: async (token: string, body: Schemas["SheetChoice"]) =>
    given(
      await client.POST("/api/sheets/{token}/left", {
        params: { path: { token } },
        body,
        parseAs: "blob",
      }),
    ) as unknown as Blob,
  cancel: async (token: string) =>
    given(await client.POST("/api/sheets/{token}/cancel", { params: { path: { token } } })),
  undo: async (number: number) =>
    given(await client.POST("/api/imports/{number}/undo", { params: { path: { number } } })),
};

export function useImports() {
  return useQuery({
    queryKey: ["imports"],
    queryFn: async () => given(await client.GET("/api/imports")),
  });
}
