import type { WeekPlace } from "@/api/place";
import { newId } from "@/api/id";

/** What was typed and is not saved yet, with the revision that it was typed over. */
export interface Copy {
  date: string;
  title: string;
  text: string;
  revision: number;
  /** Makes a new session come once, however often it is sent. */
  client: string;
  /** When it was typed, in milliseconds. */
  at: number;
}

const PREFIX = "dialback.write";
const ORPHAN_AFTER_MS = 10_000;

/** This window, also after a reload. */
function windowMark(): string {
  try {
    const kept = sessionStorage.getItem(`${PREFIX}.window`);
    if (kept) return kept;
    const fresh = newId();
    sessionStorage.setItem(`${PREFIX}.window`, fresh);
    return fresh;
  } catch {
    return "window";
  }
}

/** A desk: a session by its number, or a new one by its day. */
const desk = (place: WeekPlace, name: string) =>
  `${PREFIX}/${place.athlete}/${place.week}/${name}/`;

/** Keep what was typed; done before the next key comes. */
export function keepOnDevice(place: WeekPlace, name: string, copy: Copy): void {
  try {
    localStorage.setItem(desk(place, name) + windowMark(), JSON.stringify(copy));
  } catch {
    // A full or closed device: the text goes to the server all the same.
  }
}

/** It is stored: the device need not keep it. */
export function forgetOnDevice(place: WeekPlace, name: string): void {
  try {
    localStorage.removeItem(desk(place, name) + windowMark());
  } catch {
    // Nothing was kept.
  }
}

const numbers = new Map<string, string>();

/** A new session got its number after its desk was left: its address still calls it new. */
export function rememberNumber(place: WeekPlace, name: string, id: number): void {
  numbers.set(desk(place, name), String(id));
}

/** Begin a new session under that name: it has no number yet. */
export function forgetNumber(place: WeekPlace, name: string): void {
  numbers.delete(desk(place, name));
}

/** The number of the session that was left under that name; undefined if there is none. */
export const numberOf = (place: WeekPlace, name: string): string | undefined =>
  numbers.get(desk(place, name));

/** What this window typed last and did not store. */
export function typedHere(place: WeekPlace, name: string): Copy | null {
  return parsed(() => localStorage.getItem(desk(place, name) + windowMark()));
}

/** What another window left behind that is not there any more; the newest. */
export function leftBehind(
  place: WeekPlace,
  name: string,
  now = Date.now(),
): { key: string; copy: Copy } | null {
  const own = desk(place, name) + windowMark();
  let found: { key: string; copy: Copy } | null = null;
  try {
    for (let at = 0; at < localStorage.length; at += 1) {
      const key = localStorage.key(at) ?? "";
      if (!key.startsWith(desk(place, name)) || key === own) continue;
      const copy = parsed(() => localStorage.getItem(key));
      if (copy && now - copy.at > ORPHAN_AFTER_MS && (!found || copy.at > found.copy.at))
        found = { key, copy };
    }
  } catch {
    return null;
  }
  return found;
}

/** Let go of what was left behind. */
export function dropLeft(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // It is gone already.
  }
}

function parsed(read: () => string | null): Copy | null {
  try {
    const text = read();
    return text === null ? null : (JSON.parse(text) as Copy);
  } catch {
    return null;
  }
}
