import type { KeyAction } from "./keys";

interface Place {
  title: string;
  path: string;
  key: KeyAction;
}

/** Places of the whole house. */
export const HOUSE_PLACES: Place[] = [
  { title: "Roster", path: "/", key: "roster" },
  { title: "Floor", path: "/floor", key: "floor" },
  { title: "Movements", path: "/movements", key: "movements" },
  { title: "Kit", path: "/kit", key: "kit" },
  { title: "House rules", path: "/rules", key: "house" },
  { title: "Files", path: "/files", key: "files" },
];

/** An athlete's places, in the order of the work; each is a path below the week. */
export const ATHLETE_PLACES: Place[] = [
  { title: "Block", path: "block", key: "block" },
  { title: "Write", path: "write", key: "write" },
  { title: "Log", path: "log", key: "log" },
  { title: "Week sheet", path: "sheet", key: "sheet" },
  { title: "Season", path: "season", key: "season" },
  { title: "Dial", path: "dial", key: "dial" },
  { title: "Own rules", path: "rules", key: "own" },
];

export const weekPath = (athlete: number, week: string, place: string): string =>
  `/athletes/${athlete}/weeks/${week}/${place}`;
