import type { Level, Schemas } from "@/api/client";

type Notch = Schemas["NotchOut"];

const WEIGHT: Record<Level, number> = { high: 3, caution: 2, note: 1 };

/**
 * The notches to show: all of them, or on each side of the pointer the nearest one that clears a
 * finding and the nearest one that raises one. What was passed on the way stands among the findings.
 */
export function shownNotches(
  dialled: Pick<Schemas["NotchesOut"], "start" | "notches">,
  pointer: number,
  all: boolean,
): Notch[] {
  const { start, notches } = dialled;
  const inOrder = [...notches].sort((one, two) => one.total - two.total);
  if (all) return inOrder;
  const ahead = inOrder.filter((one) => !isPassed(one.total, start, pointer));
  const found = new Set<Notch>();
  for (const isAbove of [false, true])
    for (const effect of ["clears", "raises"]) {
      const own = ahead.filter(
        (one) =>
          (isAbove ? one.total > pointer : one.total < pointer) &&
          (one.effect === "clears") === (effect === "clears"),
      );
      const [nearest] = own.sort(
        (one, two) =>
          Math.abs(one.total - pointer) - Math.abs(two.total - pointer) ||
          WEIGHT[two.level] - WEIGHT[one.level],
      );
      if (nearest) found.add(nearest);
    }
  return inOrder.filter((one) => found.has(one));
}

/** A notch between the start and the pointer has done what it does. */
function isPassed(total: number, start: number, pointer: number): boolean {
  return pointer > start ? total > start && total <= pointer : total < start && total >= pointer;
}
