import type { Schemas } from "@/api/client";
import type { Row, Value } from "./RuleField";

/** Choices that differ from those under them: tables key by key. */
export type Chosen = Record<string, unknown>;

export function isTable(value: unknown): value is Record<string, Row> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** The value in force: the own one over the one under it. */
export function valueOf(own: unknown, under: Value): Value {
  if (own === undefined) return under;
  return isTable(under) ? { ...under, ...(own as Record<string, Row>) } : (own as Value);
}

/** The choices with one of them made; what is as it is under them is no choice. */
export function withChoice(chosen: Chosen, name: string, next: Value, under: Value): Chosen {
  const rest = Object.fromEntries(Object.entries(chosen).filter(([key]) => key !== name));
  if (isTable(under) && isTable(next)) {
    const own = Object.entries(next).filter(
      ([key, band]) => JSON.stringify(under[key]) !== JSON.stringify(band),
    );
    return own.length ? { ...rest, [name]: Object.fromEntries(own) } : rest;
  }
  return JSON.stringify(under) === JSON.stringify(next) ? rest : { ...rest, [name]: next };
}

/** The choices with a school's: one that ships sets what it sets, one of the house's own all rules. */
export function withSchool(
  chosen: Chosen,
  school: Schemas["PresetOut"],
  rules: Schemas["RuleOut"][],
  under: (rule: Schemas["RuleOut"]) => Value,
): Chosen {
  let next = chosen;
  for (const rule of rules) {
    const own = school.rules[rule.name];
    if (own === undefined && !school.of_house) continue;
    const base = school.of_house ? (rule.default as Value) : valueOf(next[rule.name], under(rule));
    next = withChoice(next, rule.name, valueOf(own, base), under(rule));
  }
  return next;
}
