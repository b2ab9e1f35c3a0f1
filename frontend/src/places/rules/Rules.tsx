import { type ReactNode, useEffect, useMemo, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { useRoster } from "@/api/roster";
import { rules as calls, useRules } from "@/api/rules";
import { useFrame } from "@/api/sheet";
import { lastPlace, useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { Leaving } from "@/frame/Leaving";
import { About } from "./About";
import { Maxima } from "./Maxima";
import { Preview } from "./Preview";
import { PreviewAll } from "./PreviewAll";
import { Restrictions } from "./Restrictions";
import { Schools } from "./Schools";
import { RuleField, type Value } from "./RuleField";
import { type Chosen, valueOf, withChoice } from "./choices";

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
          <About place={place} />
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
      key={athlete ?? "house"}
      athlete={athlete}
      place={place}
      before={before}
      data={stored.data}
    />
  );
}

interface Stored {
  chosen: Chosen;
  revision: number;
}

/** The choices that were in force before the last ones were kept, and the revision these made. */
interface Kept {
  before: Chosen;
  revision: number;
}

function Desk({ athlete, place, before, data }: DeskProps & { data: Schemas["RulesOut"] }) {
  const [base, setBase] = useState<Stored>(data);
  const [chosen, setChosen] = useState<Chosen>(data.chosen);
  const [kept, setKept] = useState<Kept | null>(null);
  const [looked, setLooked] = useState<WeekPlace | null>(null);
  const changed = JSON.stringify(chosen) !== JSON.stringify(base.chosen);
  const take = (next: Stored) => {
    setBase(next);
    setChosen(next.chosen);
  };
  // Kept in another window meanwhile: shown at once, unless choices in hand would be lost by it.
  const isOlder = data.revision > base.revision;
  if (isOlder && !changed) take(data);
  const keep = useChange(async () => {
    const stored = await calls.save(athlete, { chosen, revision: base.revision });
    setKept({ before: base.chosen, revision: stored.revision });
    setBase({ chosen, revision: stored.revision });
  });
  const undo = useChange(async (earlier: Chosen) => {
    const stored = await calls.save(athlete, { chosen: earlier, revision: base.revision });
    setKept(null);
    take({ chosen: earlier, revision: stored.revision });
  });
  const groups = [...new Set(data.rules.map((rule) => rule.group))];

  const under = (rule: Rule): Value => (athlete === null ? rule.default : rule.house) as Value;
  const value = (rule: Rule) => valueOf(chosen[rule.name], under(rule));
  const choose = (rule: Rule, next: Value) =>
    setChosen((now) => withChoice(now, rule.name, next, under(rule)));
  /** A school that ships sets what it sets; one of the house's own is all of the rules. */
  const takeSchool = (preset: Schemas["PresetOut"]) =>
    setChosen((now) => {
      let next = now;
      for (const rule of data.rules) {
        const own = preset.rules[rule.name];
        if (own === undefined && !preset.of_house) continue;
        const base = (
          preset.of_house ? rule.default : valueOf(next[rule.name], under(rule))
        ) as Value;
        next = withChoice(next, rule.name, valueOf(own, base), under(rule));
      }
      return next;
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
        <Schools
          presets={data.presets}
          chosen={chosen}
          choose={takeSchool}
          house={athlete === null}
          place={place}
        />
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
        {athlete === null && (
          <PreviewAll
            chosen={chosen}
            changed={changed}
            look={(one, week) => setLooked({ athlete: one, week })}
          />
        )}
        <PreviewFor
          place={looked ?? place}
          chosen={chosen}
          scope={athlete === null ? "house" : "athlete"}
          changed={changed}
        />
        <div className="mt-auto border-t border-rule px-5 py-3">
          {(keep.error ?? undo.error) && (
            <p role="alert" className="mb-2 text-sm text-high">
              {(keep.error ?? undo.error)?.message}
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
              onClick={() => take(isOlder ? data : base)}
            >
              Discard
            </button>
          </div>
          <p className="mt-2 text-xs text-ink-2">
            {changed
              ? isOlder
                ? "Other rules were kept in another window meanwhile. Discard these to see those."
                : "Not kept yet. Kept rules count every week anew, past ones too."
              : "As kept."}
            {kept?.revision === base.revision && !changed && (
              <>
                {" "}
                <button
                  type="button"
                  className="trail-link"
                  disabled={undo.isPending}
                  onClick={() => undo.mutate(kept.before)}
                >
                  Undo the last change
                </button>
              </>
            )}
          </p>
          <Leaving
            unkept={changed}
            what={
              athlete === null
                ? "The house rules in hand are not kept: leaving loses them."
                : "The rules in hand are not kept for this athlete: leaving loses them."
            }
            keep={() => keep.mutateAsync(undefined)}
          />
        </div>
      </aside>
    </div>
  );
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
        if (!control.signal.aborted) setError(messageOf(problem));
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
