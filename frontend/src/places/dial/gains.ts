import { MAIN_MEASURES, signed, unitOf } from "@/words";

/** What the week's four measures gain, those that change. */
export function gains(effect: Record<string, number>): string {
  const found = MAIN_MEASURES.flatMap((measure) => {
    const gain = effect[measure] ?? 0;
    if (Math.abs(gain) < 0.05) return [];
    const what = unitOf(measure);
    return `${signed(gain, measure)} ${Math.abs(gain) === 1 ? what.replace(/s$/, "") : what}`;
  });
  return found.length > 0 ? found.join(", ") : "the sums stay as they are";
}
