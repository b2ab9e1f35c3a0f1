import { empty } from "./boxes";
import { inWindow, onDevice } from "./remember";

/** What belongs to the device and not to a person: light or dark, tones, how long a season is. */
const OF_THE_DEVICE = new Set(["dialback.theme", "dialback.muted", "dialback.season"]);

const WAS = "dialback.was";

interface Somebody {
  name: string;
  role: string;
  athlete: number | null;
}

// An athlete and a coach may be called alike.
const markOf = ({ name, role, athlete }: Somebody) => `${role}/${athlete ?? ""}/${name}`;

/** Who was here last, until they sign out: what was typed waits for them alone. */
export const noteHere = (who: Somebody): void => onDevice.set(WAS, markOf(who));
/** Whom what is on this device belongs to. */
export const personHere = (): string => onDevice.get(WAS) ?? "";
export const wasHere = (who: Somebody): boolean => onDevice.get(WAS) === markOf(who);
/** Their name. */
export const lastHere = (): string | null =>
  onDevice.get(WAS)?.split("/").slice(2).join("/") ?? null;

/** How the names begin under which text waits that was typed and not saved yet. */
const TYPED = "dialback.write";

/**
 * Let the device forget whoever was here: what was in hand, what was shown, what the service worker
 * kept for the floor. What waits to be sent goes only where nobody can send it any more.
 */
export async function forgetPerson({ unsent }: { unsent: boolean }): Promise<void> {
  inWindow.forget(() => false);
  await forgetShown();
  onDevice.forget((name) => OF_THE_DEVICE.has(name) || (!unsent && name.startsWith(TYPED)));
  await empty("runs");
  await empty("sheets");
  if (!unsent) return;
  await empty("outbox");
  await empty("sent");
}

/** A session has ended by itself: what was shown goes, what was typed waits for the same person. */
export async function forgetShown(): Promise<void> {
  // An answer that is under way is not for keeping either.
  navigator.serviceWorker?.controller?.postMessage("forget");
  if ("caches" in window) await caches.delete("dialback-answers").catch(() => false);
}
