import type { Schemas } from "@/api/client";

/** How long and how well somebody has trained, as a coach may say. */
export const LEVELS = [
  "novice",
  "intermediate",
  "advanced",
] as const satisfies Schemas["AthleteOut"]["level"][];
