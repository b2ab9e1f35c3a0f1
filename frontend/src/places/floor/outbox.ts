import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { Refusal, type Schemas } from "@/api/client";
import { logs } from "@/api/log";

/** A log that waits to be sent. A later state of the same log takes the place of an earlier one. */
export interface Waiting {
  /** The id of the log, made here. */
  id: string;
  athlete: number;
  name: string;
  body: Schemas["LogBody"];
  /** Why the server refused it for good; it stays here and is shown. */
  refused: string | null;
}

/** What the server last told of a log, and the changes sent since: an answer may have been lost. */
interface Sent {
  revision: number;
  changes: string[];
  /** Whose log it is, and since when another version is kept beside it; null if none is. */
  beside: { name: string; since: number } | null;
}

interface Boxes extends DBSchema {
  outbox: { key: string; value: Waiting };
  sent: { key: string; value: Sent };
  runs: { key: string; value: { run: unknown; at: number } };
}

const MOST_UNANSWERED = 50;

let opened: Promise<IDBPDatabase<Boxes>> | null = null;

const boxes = () =>
  (opened ??= openDB<Boxes>("dialback", 1, {
    upgrade(db) {
      db.createObjectStore("outbox", { keyPath: "id" });
      db.createObjectStore("sent");
      db.createObjectStore("runs");
    },
  }));

const listeners = new Set<() => void>();
const tell = () => listeners.forEach((one) => one());

export function listen(heard: () => void): () => void {
  listeners.add(heard);
  return () => listeners.delete(heard);
}

/** Put a log into the box, and try to send it. It is in the box when this has returned. */
export async function post(one: Omit<Waiting, "refused">): Promise<void> {
  await (await boxes()).put("outbox", { ...one, refused: null });
  tell();
  void send();
}

export const waiting = async (): Promise<Waiting[]> => (await boxes()).getAll("outbox");

/** What was heard of versions is old after so long: somebody at the desk has decided. */
const NEWS_MS = 12 * 3_600_000;

/** The athletes of whom two versions of a log were lately kept. */
export async function besides(): Promise<string[]> {
  const sent = await (await boxes()).getAll("sent");
  return sent.flatMap(({ beside }) =>
    beside && Date.now() - beside.since < NEWS_MS ? beside.name : [],
  );
}

export async function drop(id: string): Promise<void> {
  await (await boxes()).delete("outbox", id);
  tell();
}

let sending: Promise<void> | null = null;

/** Send what waits, one after the other; what cannot be sent now stays for the next time. */
export function send(): Promise<void> {
  sending ??= sendAll().finally(() => {
    sending = null;
  });
  return sending;
}

async function sendAll(): Promise<void> {
  const db = await boxes();
  for (const one of await db.getAll("outbox")) {
    if (one.refused) continue;
    try {
      const known = (await db.get("sent", one.id)) ?? { revision: 0, changes: [], beside: null };
      const revision = Math.max(known.revision, one.body.revision);
      const changes = [...known.changes, one.body.change].slice(-MOST_UNANSWERED);
      // Noted before it goes: it may arrive although no answer comes back.
      await db.put("sent", { ...known, revision, changes }, one.id);
      const done = await logs.keep(one.athlete, one.id, {
        ...one.body,
        revision,
        after: known.changes,
      });
      const both = db.transaction(["outbox", "sent"], "readwrite");
      // Kept beside another version, the log there is not ours: a person decides in the Log.
      await both.objectStore("sent").put(
        {
          revision: done.both_kept ? revision : done.revision,
          changes: [one.body.change],
          beside: done.both_kept ? { name: one.name, since: Date.now() } : null,
        },
        one.id,
      );
      // Only what was sent goes: it may have been tapped on meanwhile.
      const now = await both.objectStore("outbox").get(one.id);
      if (now?.body.change === one.body.change) await both.objectStore("outbox").delete(one.id);
      await both.done;
    } catch (problem) {
      const refused =
        problem instanceof Refusal &&
        problem.status >= 400 &&
        problem.status < 500 &&
        !LATER.includes(problem.status);
      // Another athlete's log waits for another sign-in; the others go on.
      if (problem instanceof Refusal && problem.status === 403) continue;
      if (!refused) break;
      await db.put("outbox", { ...one, refused: problem.message });
    }
  }
  tell();
  const left = (await db.getAll("outbox")).filter((one) => !one.refused);
  if (left.length > 0 && navigator.onLine) setTimeout(() => void send(), RETRY_MS);
}

const RETRY_MS = 4000;
/** What a server says that takes it another time: later, or from whoever may send it. */
const LATER = [401, 403, 408, 425, 429];

/** A run that nobody looked at for so long is forgotten: its logs have long been sent. */
const KEPT_MS = 60 * 24 * 3_600_000;

/** What a run had come to when it was last looked at. */
export async function loadRun<T>(key: string): Promise<T | undefined> {
  const runs = (await boxes()).transaction("runs", "readwrite").store;
  for (let cursor = await runs.openCursor(); cursor; cursor = await cursor.continue())
    if (Date.now() - cursor.value.at > KEPT_MS) await cursor.delete();
  return (await runs.get(key))?.run as T | undefined;
}

export async function saveRun(key: string, run: unknown): Promise<void> {
  await (await boxes()).put("runs", { run, at: Date.now() }, key);
}

window.addEventListener("online", () => void send());
