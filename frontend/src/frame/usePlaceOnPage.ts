import { useEffect } from "react";
import { useLocation, useNavigationType } from "react-router";
import { HOUSE_PLACES } from "./places";

/** How far down each address was left, and each entry of the window's history. */
const left = new Map<string, number>();
/** What scrolls: the place itself, or on a narrow screen all of it with what stands beside. */
const SCROLLS = "main, .beside";
const LATEST_MS = 5_000;

/**
 * Whoever comes back finds the page where they left it: after going back, everywhere; by a key or
 * a link, in the places of the house, where one goes down a list from one to the next.
 */
export function usePlaceOnPage(): void {
  const { key, pathname, search } = useLocation();
  const isBack = useNavigationType() === "POP";
  useEffect(() => {
    const address = pathname + search;
    const isList = HOUSE_PLACES.some((one) => one.path === pathname);
    const wanted = left.get(isBack ? key : isList ? address : "") ?? 0;
    const stop = wanted > 0 ? comeTo(wanted) : () => undefined;
    const note = ({ target }: Event) => {
      if (!(target instanceof HTMLElement) || !target.matches(SCROLLS)) return;
      left.set(key, target.scrollTop);
      left.set(address, target.scrollTop);
    };
    // Before a page of another place takes over, its own scrolling is not this one's.
    document.addEventListener("scroll", note, { capture: true, passive: true });
    return () => {
      stop();
      document.removeEventListener("scroll", note, { capture: true });
    };
  }, [key, pathname, search, isBack]);
}

/** Scroll there as soon as the page is long enough, unless somebody moves first. */
function comeTo(wanted: number): () => void {
  const until = performance.now() + LATEST_MS;
  let next = requestAnimationFrame(look);
  function look() {
    const long = [...document.querySelectorAll(SCROLLS)].find(
      (one) => one.scrollHeight - one.clientHeight >= wanted,
    );
    if (long) long.scrollTop = wanted;
    else if (performance.now() < until) next = requestAnimationFrame(look);
  }
  const stop = () => {
    cancelAnimationFrame(next);
    for (const how of MOVES) document.removeEventListener(how, stop);
  };
  for (const how of MOVES) document.addEventListener(how, stop, { passive: true });
  return stop;
}

const MOVES = ["wheel", "touchstart", "keydown", "pointerdown"] as const;
