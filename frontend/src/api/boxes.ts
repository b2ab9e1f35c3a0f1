import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Schemas } from "./client";

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
export interface Sent {
  revision: number;
  changes: string[];
  /** Whose log it is, and since when another version is kept beside it; null if none is. */
  beside: { name: string; since: number } | null;
}

/** What is kept of a run; its shape is the floor's. */
export interface KeptRun {
  run: unknown;
  at: number;
}

/** A spreadsheet in hand: the file, and what was said of it so far. */
export interface KeptSheet {
  file: File;
  choice: Schemas["SheetChoice"] | null;
}

interface Schema extends DBSchema {
  outbox: { key: string; value: Waiting };
  sent: { key: string; value: Sent };
  runs: { key: string; value: KeptRun };
  sheets: { key: string; value: KeptSheet };
}

export type Box = "outbox" | "sent" | "runs" | "sheets";
type Of<B extends Box> = Schema[B]["value"];

const BOXES: Box[] = ["outbox", "sent", "runs", "sheets"];
/** A browser that neither opens its store nor says no is not waited for longer. */
const PATIENCE_MS = 3000;

let opened: Promise<IDBPDatabase<Schema> | null> | null = null;

/** The device's own store; null where the browser refuses it. */
const store = () => (opened ??= opening());

async function opening(): Promise<IDBPDatabase<Schema> | null> {
  const asked = (async () =>
    openDB<Schema>("dialback", 3, {
      async upgrade(db, before, _, change) {
        // The first boxes named their logs by a field; what waited in one goes on.
        const waited = before === 1 ? await change.objectStore("outbox").getAll() : [];
        if (before === 1) db.deleteObjectStore("outbox");
        for (const box of BOXES) if (!db.objectStoreNames.contains(box)) db.createObjectStore(box);
        for (const one of waited) await change.objectStore("outbox").put(one, one.id);
      },
    }))();
  const late = new Promise<null>((go) => {
    setTimeout(() => go(null), PATIENCE_MS);
  });
  return Promise.race([asked.catch(() => null), late]);
}

/** What the device would not take: it is here as long as the page is open. */
const memory = new Map<Box, Map<string, unknown>>(BOXES.map((box) => [box, new Map()]));
let full = false;
const listeners = new Set<() => void>();

/** Whether something is kept in memory only, because the device's store is refused or full. */
export const isInMemory = (): boolean => full;

export function listenToBoxes(heard: () => void): () => void {
  listeners.add(heard);
  return () => listeners.delete(heard);
}

function note(now: boolean): void {
  if (now === full) return;
  full = now;
  listeners.forEach((one) => one());
}

const inMemory = <B extends Box>(box: B) => memory.get(box) as Map<string, Of<B>>;
const noteMemory = () => note(BOXES.some((box) => inMemory(box).size > 0));

/** Put something into a box: into memory where the device does not take it. It never fails. */
export async function put<B extends Box>(box: B, key: string, value: Of<B>): Promise<void> {
  try {
    const db = await store();
    if (!db) throw new Error("no store");
    await db.put(box, value, key);
    inMemory(box).delete(key);
  } catch {
    inMemory(box).set(key, value);
  }
  noteMemory();
}

export async function get<B extends Box>(box: B, key: string): Promise<Of<B> | undefined> {
  const here = inMemory(box).get(key);
  if (here !== undefined) return here;
  try {
    return await (await store())?.get(box, key);
  } catch {
    return undefined;
  }
}

export async function all<B extends Box>(box: B): Promise<Of<B>[]> {
  const here = inMemory(box);
  try {
    const db = await store();
    if (!db) return [...here.values()];
    const [keys, values] = await Promise.all([db.getAllKeys(box), db.getAll(box)]);
    const kept = new Map(keys.map((key, at) => [key, values[at] as Of<B>]));
    return [...new Map([...kept, ...here]).values()];
  } catch {
    return [...here.values()];
  }
}

/** Take something out of a box if it is as expected: it may have been put anew meanwhile. */
export async function takeIf<B extends Box>(
  box: B,
  key: string,
  fits: (value: Of<B>) => boolean,
): Promise<void> {
  const here = inMemory(box).get(key);
  if (here !== undefined && fits(here)) inMemory(box).delete(key);
  try {
    const db = await store();
    if (db) {
      const change = db.transaction(box, "readwrite");
      const kept = await change.store.get(key);
      if (kept !== undefined && fits(kept)) await change.store.delete(key);
      await change.done;
    }
  } catch {
    // It stays, and is asked about again.
  }
  noteMemory();
}

/** Take everything out of a box that is as said. */
export async function sweep<B extends Box>(box: B, gone: (value: Of<B>) => boolean): Promise<void> {
  try {
    const change = (await store())?.transaction(box, "readwrite");
    for (let at = await change?.store.openCursor(); at; at = await at.continue())
      if (gone(at.value)) await at.delete();
  } catch {
    // It is looked at again the next time.
  }
}

/** Empty a box. */
export async function empty(box: Box): Promise<void> {
  inMemory(box).clear();
  noteMemory();
  try {
    await (await store())?.clear(box);
  } catch {
    // What the device does not give, it does not keep either.
  }
}
