import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
/** A set as the book has it. */
export type CoreSet = Schemas["Set"];
export type Basis = "completed" | "planned";
export type Level = Schemas["FindingOut"]["level"];

/** A refusal, with the text that the server wrote for a person. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
    detail: string,
    readonly problems: { place: string; message: string }[],
  ) {
    super(detail);
  }
}

/** What a person is told of something that was thrown. */
export const messageOf = (problem: unknown): string =>
  problem instanceof Error ? problem.message : String(problem);

/** Where the user is, for the journal; the frame knows the places. */
let whereabouts = (): string => "";
/** What is to be done when the server knows this device no more. */
let whenSignedOut = (): void => undefined;

export function tellFrame(frame: { place: () => string; signedOut: () => void }): void {
  whereabouts = frame.place;
  whenSignedOut = frame.signedOut;
}

const refuse: Middleware = {
  onRequest({ request }) {
    request.headers.set("X-Place", whereabouts());
    return request;
  },
  async onResponse({ response }) {
    if (response.ok) return undefined;
    const body: Partial<Schemas["ProblemDetails"]> = await response.json().catch(() => ({}));
    if (body.type?.endsWith("signed-out")) whenSignedOut();
    throw new Refusal(
      response.status,
      body.type ?? "",
      body.detail ?? `The server answered with status ${response.status}.`,
      body.problems ?? [],
    );
  },
  onError() {
    return new Refusal(0, "offline", "The server does not answer. Is Dial Back still running?", []);
  },
};

/** Statuses of answers that have no body. */
const EMPTY = [204, 304];

/** An answer with all of it there: one that ends in the middle is none. */
async function whole(response: Response): Promise<Response> {
  if (EMPTY.includes(response.status)) return response;
  const body = await response.arrayBuffer();
  const { status, statusText, headers } = response;
  return new Response(body, { status, statusText, headers });
}

const TRIES = 4;

/** Ask again where the server says that it is busy: nothing was stored, so nothing comes twice. */
async function patiently(input: Request): Promise<Response> {
  for (let left = TRIES; ; left -= 1) {
    const response = await whole(await fetch(input.clone()));
    const wait = Number(response.headers.get("Retry-After"));
    if (response.status !== 503 || !wait || left <= 1) return response;
    await new Promise((go) => {
      setTimeout(go, wait * 1000);
    });
  }
}

export const client = createClient<paths>({ baseUrl: location.origin, fetch: patiently });
client.use(refuse);

/** The data of an answer; refusals were thrown before. */
export function given<T>(answer: { data?: T }): T {
  if (answer.data === undefined)
    throw new Refusal(0, "empty", "The server's answer was empty.", []);
  return answer.data;
}
