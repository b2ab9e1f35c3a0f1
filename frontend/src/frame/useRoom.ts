import { useSyncExternalStore } from "react";

/** What there is room for: on a phone and a tablet another layout, where style alone is not enough. */
export type Room = "phone" | "tablet" | "desk";

const PHONE = "(width < 48rem)";
const TABLET = "(width < 64rem)";

const follow = (changed: () => void) => {
  const queries = [PHONE, TABLET].map((one) => matchMedia(one));
  for (const query of queries) query.addEventListener("change", changed);
  return () => {
    for (const query of queries) query.removeEventListener("change", changed);
  };
};

const room = (): Room =>
  matchMedia(PHONE).matches ? "phone" : matchMedia(TABLET).matches ? "tablet" : "desk";

/** The room of the window, as it is now. */
export const useRoom = (): Room => useSyncExternalStore(follow, room);
