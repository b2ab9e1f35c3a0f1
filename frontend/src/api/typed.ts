import { personHere } from "./forget";
import { onDevice } from "./remember";

/*
 * Words of small forms, some about somebody's health: they wait for the same person alone, and go when
 * another comes or they sign out.
 */

/** What is being typed now, by the place of its field. */
const inHand = new Map<string, string>();
const nameOf = (field: string) => `dialback.typed/${personHere()}/${field}`;

export const typed = {
  /** What a field holds, as long as it is there; what waited for it is in it. */
  note: (field: string, text: string) => {
    inHand.set(field, text);
    onDevice.drop(nameOf(field));
  },
  gone: (field: string) => inHand.delete(field),
  /** A session ends by itself: what its fields hold waits on the device for the same person. */
  keep: () => {
    for (const [field, text] of inHand) if (text.trim()) onDevice.set(nameOf(field), text);
  },
  /** What waits for a field. */
  waiting: (field: string): string | null => onDevice.get(nameOf(field)),
};
