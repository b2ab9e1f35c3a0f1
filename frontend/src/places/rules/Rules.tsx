import { type ReactNode, useEffect, useMemo, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { useRoster } from "@/api/roster";
import { rules as calls, useRules } from "@/api/rules";
import { useFrame } from "@/api/sheet";
import { lastPlace, useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { Maxima } from "./Maxima";
import { Preview } from "./Preview";
import { Restrictions } from "./Restrictions";
import { RuleField, type Value } from "./RuleField";

type Chosen = Record<string, unknown>;
type Rule = Schemas["RuleOut"];

/** The rules of the house, tried on the week that was last looked at. */
export function HouseRules() {
  const roster = useRoster();
  const first = roster.data?.athletes[0];
  const place = useMemo(
    () => lastPlace() ?? (first ? { athlete: first.id, week: first.week } : null),
    [first],
  );
  return <RulesDesk athlete={null} place={place} />;
}

/** An athlete's own rules, over those of the house. */
export function OwnRules() {
  const place = useWeekPlace();
  return (
    <RulesDesk
      athlete={place.athlete}
      place={place}
      before={
        <>
          <Restrictions athlete={place.athlete} />
          <Maxima athlete={place.athlete} />
        </>
      }
    />
  );
}

const GROUPS: Record<string, string> = {
  counting: "Counting a set",
  balance: "Balance",
  dose: "Weekly dose",
  change: "Change against the baseline",
  session: "Sessions and the course of training",
  plan: "Against the plan",
};

interface DeskProps {
  athlete: number | null;
  place: WeekPlace | null;
  before?: ReactNode;
}

function RulesDesk({ athlete, place, before }: DeskProps) {
  const stored = useRules(athlete);
  if (stored.error) return <Failure error={stored.error} />;
  if (!stored.data) return <p className="p-6 text-ink-2">Looking up the rules…</p>;
  return (
    <Desk
      key={`${athlete ?? "house"}/${stored.data.revision}`}
      athlete={athlete}
      place={place}
      before={before}
      data={stored.data}
    />
  );
}

function Desk({ athlete, place, before, data }: DeskProps & { data: Schemas["RulesOut"] }) {
  const [chosen, setChosen] = useState<Chosen>(data.chosen);
  const changed = JSON.stringify(chosen) !== JSON.stringify(data.chosen);
  const keep = useChange(() => calls.save(athlete, { chosen, revision: data.revision }));
  const groups = [...new Set(data.rules.map((rule) => rule.group))];

  const under = (rule: Rule): Value => (athlete === null ? rule.default : rule.house) as Value;
  const value = (rule: Rule): Value => {
    const own = chosen[rule.name];
    const base = under(rule);
    if (own === undefined) return base;
    return isTable(base)
      ? { ...base, ...(own as Record<string, [number, number]>) }
      : (own as Value);
  };
  const choose = (rule: Rule, next: Value) =>
    setChosen((now) => {
      const rest = Object.fromEntries(Object.entries(now).filter(([name]) => name !== rule.name));
      const base = under(rule);
      if (isTable(base) && isTable(next)) {
        const own = Object.entries(next).filter(
          ([key, band]) => JSON.stringify(base[key]) !== JSON.stringify(band),
        );
        return own.length ? { ...rest, [rule.name]: Object.fromEntries(own) } : rest;
      }
      return JSON.stringify(base) === JSON.stringify(next) ? rest : { ...rest, [rule.name]: next };
    });

  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_24rem]">
      <main className="min-h-0 overflow-auto bg-sheet px-6 pt-4 pb-10">
        {before}
        <div className="mb-1 flex items-baseline gap-4">
          <h1 className="text-xl font-semibold">
            {athlete === null ? "House rules" : "Own rules"}
          </h1>
          <p className="text-sm text-ink-2">
            {athlete === null
              ? "How you count, and what you accept. They hold for every athlete without own rules."
              : "Where this athlete is counted otherwise than the house."}
          </p>
        </div>
        <div className="mb-4 flex flex-wrap items-baseline gap-2 text-sm">
          <span className="text-ink-2 italic">Schools:</span>
          {data.presets.map((preset) => (
            <button
              key={preset.name}
              type="button"
              className="key-button"
              onClick={() => setChosen(preset.rules)}
            >
              {preset.name}
            </button>
          ))}
        </div>
        {groups.map((group) => (
          <section key={group} aria-labelledby={`rules-${group}`} className="mb-6">
            <h2 id={`rules-${group}`} className="border-b border-rule pb-1 font-semibold">
              {GROUPS[group] ?? group}
            </h2>
            {data.rules
              .filter((rule) => rule.group === group)
              .map((rule) => (
                <RuleField
                  key={rule.name}
                  rule={rule}
                  value={value(rule)}
                  under={under(rule)}
                  underName={athlete === null ? "default" : "house"}
                  choose={(next) => choose(rule, next)}
                />
              ))}
          </section>
        ))}
      </main>
      <aside className="flex min-h-0 flex-col border-l border-rule">
        <PreviewFor
          place={place}
          chosen={chosen}
          scope={athlete === null ? "house" : "athlete"}
          changed={changed}
        />
        <div className="mt-auto border-t border-rule px-5 py-3">
          {keep.error && (
            <p role="alert" className="mb-2 text-sm text-high">
              {keep.error.message}
            </p>
          )}
          <div className="flex gap-2">
            <button
              type="button"
              className="ink-button"
              disabled={!changed || keep.isPending}
              onClick={() => keep.mutate(undefined)}
            >
              {athlete === null ? "Keep as house rules" : "Keep for this athlete"}
            </button>
            <button
              type="button"
              className="key-button"
              disabled={!changed}
              onClick={() => setChosen(data.chosen)}
            >
              Discard
            </button>
          </div>
          <p className="mt-2 text-xs text-ink-2">
            {changed
              ? "Not kept yet. Kept rules count every week anew, past ones too."
              : "As kept."}
          </p>
        </div>
      </aside>
    </div>
  );
}

export function isTable(value: unknown): value is Record<string, [number, number]> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function PreviewFor({
  place,
  chosen,
  scope,
  changed,
}: {
  place: WeekPlace | null;
  chosen: Chosen;
  scope: "house" | "athlete";
  changed: boolean;
}) {
  const frame = useFrame(place ?? { athlete: 0, week: "" }, place !== null);
  const [answer, setAnswer] = useState<Schemas["PreviewOut"] | null>(null);
  const [error, setError] = useState<string | null>(null);
  const basis = frame.data && !frame.data.over ? "planned" : "completed";
  useEffect(() => {
    if (!place || !changed) return undefined;
    const control = new AbortController();
    calls
      .preview(place, { chosen, scope, basis }, control.signal)
      .then((found) => {
        setAnswer(found);
        setError(null);
      })
      .catch((problem: unknown) => {
        if (!control.signal.aborted)
          setError(problem instanceof Error ? problem.message : String(problem));
      });
    return () => control.abort();
  }, [place, chosen, scope, basis, changed]);
  return (
    <Preview
      title={frame.data ? { athlete: frame.data.athlete.name, week: frame.data.week } : null}
      answer={changed ? answer : null}
      changed={changed}
      error={changed ? error : null}
    />
  );
}
