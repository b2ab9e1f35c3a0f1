import type { Who } from "@/api/me";
import type { BarLink } from "./BottomBar";
import { HOUSE_PLACES, isFor, weekPath } from "./places";
import { asWanted } from "./wanted";

/** The places of the house that are for somebody, with what was last looked for in each. */
export function houseLinks(who: Who): BarLink[] {
  const own =
    who.athlete === null ? [] : [{ title: "My week", to: weekPath(who.athlete, who.week, "log") }];
  const places = HOUSE_PLACES.filter((one) => isFor(who, one));
  return [...own, ...places.map((one) => ({ title: one.title, to: asWanted(one.path) }))];
}
