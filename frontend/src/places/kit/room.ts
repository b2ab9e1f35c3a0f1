import type { Schemas } from "@/api/client";

export type Room = Required<Schemas["Kit"]>;
export type Stack = Room["stacks"][number];

export const EMPTY: Room = {
  dumbbells_kg: [],
  kettlebells_kg: [],
  bars_kg: [],
  plates: [],
  stacks: [],
  bands: [],
  sensor: false,
};
