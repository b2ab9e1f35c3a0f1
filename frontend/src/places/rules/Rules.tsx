import { type ReactNode, useMemo, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { useInHand } from "@/api/inHand";
import { useMay } from "@/api/me";
import { useRoster } from "@/api/roster";
import { rules as calls, useRules } from "@/api/rules";
import { lastPlace, useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { ReadOnly } from "@/frame/ReadOnly";
import { OtherVersion, differencesOf } from "@/frame/OtherVersion";
import { About } from "./About";
import { Maxima } from "./Maxima";
import { Groups } from "./Groups";
import { Keeping } from "./Keeping";
import { PreviewAll } from "./PreviewAll";
import { PreviewFor } from "./PreviewFor";
import { Care } from "./Care";
import { Decisions } from "./Decisions";
import { Restrictions } from "./Restrictions";
import { Schools } from "./Schools";
import type { Value } from "./RuleField";
import { type Chosen, valueOf, withChoice, withSchool } from "./choices";

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
          <Care athlete={place.athlete} />
          <Decisions athlete={place.athlete} />
          <Maxima athlete={place.athlete} />
        </>
      }
    />
  );
}

interface DeskProps {
  athlete: number | null;
  place: WeekPlace | null;
  before?: ReactNode;
}

function RulesDesk({ athlete, place, before }: DeskProps) {
  const stored = useRules(athlete);
  if (stored.error) return <Failure error={stored.error} />;
  if (!stored.data) return <p className="p-6 text-ink-2">Loading the rules…</p>;
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

/** The choices that were in force before the last ones were kept, and the revision these made. */
interface Kept {
  before: Chosen;
  revision: number;
}

function Desk({ athlete, place, before, data }: DeskProps & { data: Schemas["RulesOut"] }) {
  const stored = useInHand<Chosen>(
    { value: data.chosen, revision: data.revision },
    `rules/${athlete ?? "house"}`,
  );
  const may = useMay("plan");
  const { inHand: chosen, put: setChosen, changed, isOlder, base } = stored;
  const [kept, setKept] = useState<Kept | null>(null);
  const [looked, setLooked] = useState<WeekPlace | null>(null);
  const keep = useChange(async () => {
    const { revision } = await calls.save(athlete, { chosen, revision: base.revision });
    setKept({ before: base.value, revision });
    stored.take({ value: chosen, revision });
  });
  const undo = useChange(async (earlier: Chosen) => {
    const { revision } = await calls.save(athlete, { chosen: earlier, revision: base.revision });
    setKept(null);
    stored.take({ value: earlier, revision });
  });
  const under = (rule: Rule): Value => (athlete === null ? rule.default : rule.house) as Value;
  const value = (rule: Rule) => valueOf(chosen[rule.name], under(rule));
  const choose = (rule: Rule, next: Value) =>
    setChosen((now) => withChoice(now, rule.name, next, under(rule)));
  const takeSchool = (preset: Schemas["PresetOut"]) =>
    setChosen((now) => withSchool(now, preset, data.rules, under));
  return (
    <div
      className={may ? "beside grid-cols-[minmax(0,1fr)_24rem]" : "flex min-h-0 flex-1 flex-col"}
    >
      <main className="min-h-0 overflow-auto bg-sheet px-6 pt-4 pb-10">
        <ReadOnly says="Coaches change the rules.">
          {before}
          {isOlder && (
            <OtherVersion
              what={athlete === null ? "The house rules were" : "The rules were"}
              differences={differencesOf(
                stored.stored.value,
                chosen,
                (name) => data.rules.find((one) => one.name === name)?.title ?? name,
              )}
              takeTheirs={stored.discard}
              keepMine={stored.insist}
            />
          )}
          <Title house={athlete === null} />
          <Schools
            presets={data.presets}
            chosen={chosen}
            choose={takeSchool}
            house={athlete === null}
            place={place}
          />
          <Groups
            rules={data.rules}
            value={value}
            under={under}
            underName={athlete === null ? "default" : "house"}
            choose={choose}
          />
        </ReadOnly>
      </main>
      {may && (
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
          <Keeping
            athlete={athlete}
            changed={changed}
            isOlder={isOlder}
            keep={keep}
            discard={stored.discard}
            undo={
              kept?.revision === base.revision && !changed ? () => undo.mutate(kept.before) : null
            }
            problem={keep.error ?? undo.error}
          />
        </aside>
      )}
    </div>
  );
}

/** What the rules are for. */
const Title = ({ house }: { house: boolean }) => (
  <div className="mb-1 flex flex-wrap items-baseline gap-x-4">
    <h1 className="text-xl font-semibold">{house ? "House rules" : "Rules for this athlete"}</h1>
    <p className="text-sm text-ink-2">
      {house
        ? "How you count, and what you accept. They apply to every athlete without their own rules."
        : "Where this athlete is counted differently from the house."}
    </p>
  </div>
);
