import type { Schemas } from "@/api/client";

type Kit = Schemas["Kit"];

/** Several kits as one: the loads of each once, rising; of plates and stacks the first stands. */
export function joined(kits: Kit[]): Kit {
  const loads = (of: "dumbbells_kg" | "kettlebells_kg" | "bars_kg") =>
    [...new Set(kits.flatMap((one) => one[of] ?? []))].sort((one, two) => one - two);
  const first = <One>(all: One[], key: (one: One) => number | string) => {
    const found = new Map<number | string, One>();
    for (const one of all) if (!found.has(key(one))) found.set(key(one), one);
    return [...found.values()];
  };
  return {
    dumbbells_kg: loads("dumbbells_kg"),
    kettlebells_kg: loads("kettlebells_kg"),
    bars_kg: loads("bars_kg"),
    plates: first(
      kits.flatMap((one) => one.plates ?? []),
      (plate) => plate.kg,
    ),
    stacks: first(
      kits.flatMap((one) => one.stacks ?? []),
      (stack) => stack.name,
    ),
    bands: [...new Set(kits.flatMap((one) => one.bands ?? []))],
  };
}
