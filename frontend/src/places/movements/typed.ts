import type { Schemas } from "@/api/client";

type Known = Schemas["MovementOut"];
type Core = Schemas["Movement"];
export type Role = "direct" | "indirect";

/** A word of the vocabulary as it is read. */
export const plain = (word: string) => word.replaceAll("_", " ");
const several = (text: string) =>
  text
    .split(",")
    .map((word) => word.trim())
    .filter(Boolean);

/** A movement as it is typed. */
export interface Typed {
  name: string;
  pattern: string;
  compound: boolean;
  isometric: boolean;
  one_sided: boolean;
  share: string;
  tempo: string;
  muscles: Record<string, Role>;
  aliases: string;
  kit: string;
  easier: string;
  harder: string;
  progress: string;
}

export function typedOf(one: Known | null): Typed {
  return {
    name: one?.name ?? "",
    pattern: one?.pattern ?? "horizontal_push",
    compound: one?.compound ?? true,
    isometric: one?.isometric ?? false,
    one_sided: one?.one_sided ?? false,
    share: String(one?.bodyweight_share ?? 0),
    tempo: one?.tempo ?? "",
    muscles: Object.fromEntries([
      ...(one?.direct ?? []).map((muscle) => [muscle, "direct"]),
      ...(one?.indirect ?? []).map((muscle) => [muscle, "indirect"]),
    ]) as Record<string, Role>,
    aliases: one?.aliases.join(", ") ?? "",
    kit: one?.kit.join(", ") ?? "",
    easier: one?.easier ?? "",
    harder: one?.harder ?? "",
    progress: one?.progress ?? "",
  };
}

export const coreOf = (typed: Typed): Core => ({
  name: typed.name,
  pattern: typed.pattern as Core["pattern"],
  compound: typed.compound,
  isometric: typed.isometric,
  one_sided: typed.one_sided,
  bodyweight_share: Number(typed.share.replace(",", ".") || 0),
  tempo: typed.tempo || null,
  muscles: typed.muscles,
  aliases: several(typed.aliases),
  kit: several(typed.kit),
  easier: typed.easier || null,
  harder: typed.harder || null,
  progress: (typed.progress || null) as Core["progress"],
});
