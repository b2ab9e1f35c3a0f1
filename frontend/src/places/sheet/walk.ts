import type { KeyboardEvent } from "react";

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

/** Walk the figures of a sheet with the arrow keys: to the nearest one in that direction. */
export function walkFigures(event: KeyboardEvent<HTMLElement>): void {
  const arrow = ARROWS[event.key];
  const from =
    event.target instanceof HTMLElement ? event.target.closest<HTMLElement>("[data-figure]") : null;
  if (!arrow || !from) return;
  event.preventDefault();
  const [dx, dy] = arrow;
  const here = from.getBoundingClientRect();
  let best: HTMLElement | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const one of event.currentTarget.querySelectorAll<HTMLElement>("[data-figure]")) {
    const there = one.getBoundingClientRect();
    const along = dx ? (there.right - here.right) * dx : (there.top - here.top) * dy;
    const aside = Math.abs(dx ? there.top - here.top : there.right - here.right);
    // Straight on counts more than near: a column is kept as long as it has figures.
    const distance = along + aside * 3;
    if (along > 4 && (dx === 0 || aside < 12) && distance < least) {
      least = distance;
      best = one;
    }
  }
  best?.focus();
  best?.scrollIntoView({ block: "nearest" });
}
