import { signed, unit } from "@/words";

const MEASURES = ["sets", "reps", "volume_load_kg", "tut_s"] as const;

/** What the week's four measures gain, those that change. */
export function gains(effect: Record<string, number>): string {
  const found = MEASURES.flatMap((measure) => {
    const gain = effect[measure] ?? 0;
    if (Math.abs(gain) < 0.05) return [];
    const what =
      measure === "tut_s"
        ? "s of tension"
        : measure === "volume_load_kg"
          ? `${unit(measure)} of volume load`
          : unit(measure);
    return `${signed(gain, measure)} ${Math.abs(gain) === 1 ? what.replace(/s$/, "") : what}`;
  });
  return found.length > 0 ? found.join(", ") : "the sums stay as they are";
}
