import { type Waiting, all, get, put, sweep, takeIf } from "@/api/boxes";
import { Refusal } from "@/api/client";
import { logs } from "@/api/log";

export type { Waiting } from "@/api/boxes";

const MOST_UNANSWERED = 50;

const listeners = new Set<() => void>();
const tell = () => listeners.forEach((one) => one());

export function listen(heard: () => void): () => void {
  listeners.add(heard);
  return () => listeners.delete(heard);
}

/** Put a log into the box, and try to send it. It is in the box when this has returned. */
export async function post(one: Omit<Waiting, "refused">): Promise<void> {
  await put("outbox", one.id, { ...one, refused: null });
  tell();
  void send();
}

export const waiting = (): Promise<Waiting[]> => all("outbox");

/** What was heard of versions is old after so long: somebody at the desk has decided. */
const NEWS_MS = 12 * 3_600_000;

/** The athletes of whom two versions of a log were lately kept. */
export async function besides(): Promise<string[]> {
  const sent = await all("sent");
  return sent.flatMap(({ beside }) =>
    beside && Date.now() - beside.since < NEWS_MS ? beside.name : [],
  );
}

export async function drop(id: string): Promise<void> {
  await takeIf("outbox", id, () => true);
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
  for (const one of await all("outbox")) {
    if (one.refused) continue;
    try {
      const known = (await get("sent", one.id)) ?? { revision: 0, changes: [], beside: null };
      const revision = Math.max(known.revision, one.body.revision);
      const changes = [...known.changes, one.body.change].slice(-MOST_UNANSWERED);
      // Noted before it goes: it may arrive although no answer comes back.
      await put("sent", one.id, { ...known, revision, changes });
      const done = await logs.keep(one.athlete, one.id, {
        ...one.body,
        revision,
        after: known.changes,
      });
      // Kept beside another version, the log there is not ours: a person decides in the Log.
      await put("sent", one.id, {
        revision: done.both_kept ? revision : done.revision,
        changes: [one.body.change],
        beside: done.both_kept ? { name: one.name, since: Date.now() } : null,
      });
      // Only what was sent goes: it may have been tapped on meanwhile.
      await takeIf("outbox", one.id, (now) => now.body.change === one.body.change);
    } catch (problem) {
      const refused =
        problem instanceof Refusal &&
        problem.status >= 400 &&
        problem.status < 500 &&
        !LATER.includes(problem.status);
      // Another athlete's log waits for another sign-in; the others go on.
      if (problem instanceof Refusal && problem.status === 403) continue;
      if (!refused) break;
      await put("outbox", one.id, { ...one, refused: problem.message });
    }
  }
  tell();
  const left = (await all("outbox")).filter((one) => !one.refused);
  if (left.length > 0 && navigator.onLine) setTimeout(() => void send(), RETRY_MS);
}

const RETRY_MS = 4000;
/** What a server says that takes it another time: later, or from whoever may send it. */
const LATER = [401, 403, 408, 425, 429];

/** A run that nobody looked at for so long is forgotten: its logs have long been sent. */
const KEPT_MS = 60 * 24 * 3_600_000;

/** What a run had come to when it was last looked at. */
export async function loadRun<T>(key: string): Promise<T | undefined> {
  await sweep("runs", (one) => Date.now() - one.at > KEPT_MS);
  return (await get("runs", key))?.run as T | undefined;
}

export async function saveRun(key: string, run: unknown): Promise<void> {
  await put("runs", key, { run, at: Date.now() });
}

/** Forget a run: another one goes on with its logs. */
export const dropRun = (key: string): Promise<void> => takeIf("runs", key, () => true);

window.addEventListener("online", () => void send());
