import { inWindow } from "@/api/remember";
import { useLocation } from "react-router";
import { useEffect } from "react";

/** A day is not kept: tomorrow the floor is tomorrow's. */
const PASSING = ["day"];
const nameOf = (path: string) => `dialback.wanted ${path}`;

/** The address of a place of the house with what was last looked for there. */
export const asWanted = (path: string): string => path + (inWindow.get(nameOf(path)) ?? "");

/** Keep what is looked for in a place of the house, for whoever comes back by a link or a key. */
export function useWanted(): void {
  const { pathname, search } = useLocation();
  useEffect(() => {
    if (pathname.startsWith("/athletes/")) return;
    const kept = new URLSearchParams(search);
    for (const name of PASSING) kept.delete(name);
    const text = kept.toString();
    inWindow.set(nameOf(pathname), text && `?${text}`);
  }, [pathname, search]);
}
