import { useEffect, useRef } from "react";

const heading = () => document.querySelector<HTMLElement>("main h1, h1");

function focusOn(found: HTMLElement | null): void {
  if (!found) return;
  // Not a stop for the tab key: only where one is taken to.
  found.tabIndex = -1;
  found.focus({ preventScroll: true });
}

/** To what a place is about, past what stands around every place. */
export const skipToPlace = (): void => focusOn(document.querySelector<HTMLElement>("main"));

/**
 * After a change of place the focus is on its heading, so that it is told and tabbing begins there;
 * but where the place has put it somewhere itself, it stays.
 */
export function useHeading(path: string): void {
  const last = useRef(path);
  useEffect(() => {
    if (last.current === path) return undefined;
    last.current = path;
    const soon = requestAnimationFrame(() => {
      const at = document.activeElement;
      const left = at === null || at === document.body || at.closest("header, nav") !== null;
      if (left) focusOn(heading());
    });
    return () => cancelAnimationFrame(soon);
  }, [path]);
}
