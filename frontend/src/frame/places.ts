import type { Right, Who } from "@/api/me";
import type { KeyAction } from "./keys";

export interface Place {
  title: string;
  path: string;
  key: KeyAction;
  /** The right that it takes; what is there to be written may take more. */
  needs: Right;
  /** Open to an athlete, too, for what is their own. */
  own?: true;
}

/** Places of the whole house. */
export const HOUSE_PLACES: Place[] = [
  { title: "Roster", path: "/", key: "roster", needs: "read" },
  { title: "Squad", path: "/squad", key: "squad", needs: "read" },
  { title: "Floor", path: "/floor", key: "floor", needs: "log", own: true },
  { title: "Movements", path: "/movements", key: "movements", needs: "read" },
  { title: "Kit", path: "/kit", key: "kit", needs: "read" },
  { title: "House rules", path: "/rules", key: "house", needs: "read" },
  { title: "Files", path: "/files", key: "files", needs: "plan" },
  { title: "People", path: "/people", key: "people", needs: "plan" },
  { title: "Journal", path: "/journal", key: "journal", needs: "read" },
];

/** An athlete's places, in the order of the work; each is a path below the week. */
export const ATHLETE_PLACES: Place[] = [
  { title: "Block", path: "block", key: "block", needs: "read" },
  { title: "Write", path: "write", key: "write", needs: "plan" },
  { title: "Log", path: "log", key: "log", needs: "log", own: true },
  { title: "Week sheet", path: "sheet", key: "sheet", needs: "read" },
  { title: "Season", path: "season", key: "season", needs: "read" },
  { title: "Dial", path: "dial", key: "dial", needs: "plan" },
  { title: "Profile", path: "rules", key: "own", needs: "read" },
];

/** Whether a place is for whoever is here. */
export const isFor = (who: Who | undefined, place: Place): boolean =>
  who !== undefined &&
  (who.rights.includes(place.needs) || (place.own === true && who.athlete !== null));

export const weekPath = (athlete: number, week: string, place: string): string =>
  `/athletes/${athlete}/weeks/${week}/${place}`;

/** The place of an address, by its title: what the journal calls where something was done. */
export function placeAt(path: string): string {
  const last = path.split("/").at(-1) ?? "";
  if (path.startsWith("/athletes/"))
    return ATHLETE_PLACES.find((one) => one.path === last)?.title ?? "";
  const house = HOUSE_PLACES.find((one) =>
    one.path === "/" ? path === "/" : path.startsWith(one.path),
  );
  return house?.title ?? "";
}
