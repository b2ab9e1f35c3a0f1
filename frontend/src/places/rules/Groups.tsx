import type { Schemas } from "@/api/client";
import { RuleField, type Value } from "./RuleField";

const GROUPS: Record<string, string> = {
  counting: "Counting a set",
  balance: "Balance",
  dose: "Weekly dose",
  change: "Change against the baseline",
  session: "Sessions and the course of training",
  plan: "Against the plan",
  long_run: "The long run",
};

type Rule = Schemas["RuleOut"];

interface Props {
  rules: Rule[];
  value: (rule: Rule) => Value;
  /** What is in force where nothing is chosen. */
  under: (rule: Rule) => Value;
  underName: "default" | "house";
  choose: (rule: Rule, next: Value) => void;
}

/** The rules, by what they are about. */
export function Groups({ rules, value, under, underName, choose }: Props) {
  return [...new Set(rules.map((rule) => rule.group))].map((group) => (
    <section key={group} aria-labelledby={`rules-${group}`} className="mb-6">
      <h2 id={`rules-${group}`} className="border-b border-rule pb-1 font-semibold">
        {GROUPS[group] ?? group}
      </h2>
      {rules
        .filter((rule) => rule.group === group)
        .map((rule) => (
          <RuleField
            key={rule.name}
            rule={rule}
            value={value(rule)}
            under={under(rule)}
            underName={underName}
            choose={(next) => choose(rule, next)}
          />
        ))}
    </section>
  ));
}
