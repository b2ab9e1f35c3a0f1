import { useEffect } from "react";
import { placeAt } from "./places";

/** The window's title: the place, whose and of which week, as one looks for it among many tabs. */
export function useTitle(path: string, whose?: string): void {
  useEffect(() => {
    const words = [placeAt(path), whose, "Dial Back"].filter(Boolean);
    document.title = words.join(", ");
  }, [path, whose]);
}
