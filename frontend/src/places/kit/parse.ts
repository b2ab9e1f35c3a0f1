const RANGE = /^(\d+(?:[.,]\d+)?)\s*[-–]\s*(\d+(?:[.,]\d+)?)\s+by\s+(\d+(?:[.,]\d+)?)$/i;
/** A number as it is typed, with a comma or a point. */
export const value = (text: string) => Number(text.replace(",", "."));

/** `10, 12, 14-20 by 2` as numbers; the first piece that is none otherwise. */
export function parsed(text: string): number[] | string {
  const loads = new Set<number>();
  for (const piece of text
    .split(/[;\s]*,\s+|[;\n]+\s*|,(?=\S*\s)/)
    .map((one) => one.trim())
    .filter(Boolean)) {
    const range = RANGE.exec(piece);
    const [from = 0, to = 0, by = 0] = range ? range.slice(1).map(value) : [];
    const one = value(piece);
    if (range && by > 0 && to >= from && (to - from) / by <= 200) {
      for (let load = from; load <= to + 1e-9; load += by)
        loads.add(Math.round(load * 1000) / 1000);
    } else if (!range && Number.isFinite(one) && one > 0) loads.add(one);
    else return piece;
  }
  return [...loads].sort((a, b) => a - b);
}

/** A list with one of it put otherwise, or without it. */
export const replaced = <T>(all: readonly T[], at: number, one: T): T[] =>
  all.map((other, index) => (index === at ? one : other));
export const without = <T>(all: readonly T[], at: number): T[] =>
  all.filter((_, index) => index !== at);
