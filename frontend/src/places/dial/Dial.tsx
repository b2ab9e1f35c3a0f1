import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { useDraft } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { Heads } from "@/frame/Heads";
import { KEYS, useKeys } from "@/frame/keys";
import { weekPath } from "@/frame/places";
import { DialFace } from "@/marks/DialFace";
import { day, keptWeight, typedWeight, weekName, weightUnit } from "@/words";
import { Answer } from "./Answer";
import { Proposals } from "./Proposals";
import { PublishDialog } from "./PublishDialog";
import { Stepper } from "./Stepper";
import { type Saving, useDialDraft, withLine } from "./useDialDraft";

/** The draft of a week's plan: turn the dial or step a line, and the audit answers at once. */
export function Dial() {
  const place = useWeekPlace();
  const draft = useDraft(place);
  if (draft.error) return <Failure error={draft.error} />;
  if (!draft.data || draft.isRefetching)
    return <p className="p-6 text-ink-2">Laying out the draft…</p>;
  // A draft that was fetched anew is another draft in hand.
  return (
    <Desk
      key={`${place.athlete}/${place.week}/${draft.dataUpdatedAt}`}
      place={place}
      opened={draft.data}
    />
  );
}

const ORIGINS: Record<string, (week: string) => string> = {
  saved: () => "Your stored draft",
  plan: () => "From the plan as published",
  "last plan": (week) => `From the plan of ${weekName(week).toLowerCase()}`,
  "last log": (week) => `From what was done in ${weekName(week).toLowerCase()}`,
  empty: () => "Nothing planned yet",
};

const SAVED: Record<Saving, string> = {
  stored: "stored",
  changed: "storing…",
  saving: "storing…",
  stale: "not stored: changed in another window",
  failed: "not stored",
};

function Desk({ place, opened }: { place: WeekPlace; opened: Schemas["DraftOut"] }) {
  const draft = useDialDraft(place, opened);
  const [publishing, setPublishing] = useState(false);
  const go = useNavigate();
  const { pointer, turn } = draft;
  const clamp = (total: number) => Math.max(opened.least, Math.min(opened.most, total));
  useKeys({
    less: () => turn(clamp(pointer - 1)),
    more: () => turn(clamp(pointer + 1)),
    undo: draft.undo,
  });
  if (opened.sessions.length === 0)
    return (
      <main className="flex-1 bg-sheet px-6 py-8">
        <p className="text-lg">There is nothing to turn yet.</p>
        <p className="mt-2 max-w-prose">
          A draft begins with the week&rsquo;s plan, or with the week before it; this one has
          neither. Go back with <kbd className="font-mono text-xs">[</kbd> to a week that was
          trained, or{" "}
          <Link to="/files" className="trail-link">
            import a book
          </Link>
          .
        </p>
      </main>
    );
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_28rem]">
      <main className="min-h-0 overflow-auto bg-sheet px-6 pt-3 pb-10">
        <div className="flex items-baseline gap-4 pb-2 text-sm">
          <p className="text-ink-2">
            {(ORIGINS[opened.origin] ?? (() => ""))(opened.origin_week)};{" "}
            <span
              role="status"
              className={draft.saving === "stale" || draft.saving === "failed" ? "text-high" : ""}
            >
              {draft.canUndo || opened.origin === "saved" ? SAVED[draft.saving] : "unchanged"}
            </span>
          </p>
          <span className="ml-auto flex gap-2">
            <button
              type="button"
              className="key-button"
              disabled={!draft.canUndo}
              onClick={draft.undo}
              title={`Key ${KEYS.undo.key}`}
            >
              Undo
            </button>
            <button type="button" className="key-button" onClick={draft.reset}>
              Reset
            </button>
            <button type="button" className="ink-button" onClick={() => setPublishing(true)}>
              Publish as {weekName(place.week).toLowerCase()}&rsquo;s plan
            </button>
          </span>
        </div>
        {draft.error && (
          <p role="alert" className="mb-2 border-l-4 border-high pl-3 text-sm">
            {draft.error}
          </p>
        )}
        {draft.sessions.map((session, at) => (
          <SessionLines
            key={session.date + session.title}
            session={session}
            words={draft.audit.lines[at] ?? []}
            change={(number, change) => draft.edit((all) => withLine(all, at, number, change))}
          />
        ))}
      </main>
      <aside className="min-h-0 overflow-auto border-l border-rule px-5 pb-6">
        <DialFace
          value={pointer}
          start={opened.start_total}
          least={opened.least}
          most={opened.most}
          notches={draft.notches.notches}
          turn={turn}
        />
        <div className="flex items-baseline justify-center gap-2 border-b border-rule pb-2">
          <Stepper
            label="Sets of the week"
            value={pointer}
            step={1}
            whole
            least={opened.least}
            most={opened.most}
            set={turn}
          />
          <span>sets</span>
          <span className="text-ink-2">
            {pointer === opened.start_total
              ? "as at the start"
              : `${pointer > opened.start_total ? "+" : "−"}${Math.abs(pointer - opened.start_total)}, ${Math.round((pointer / Math.max(1, opened.start_total)) * 100)} % of the start`}
          </span>
        </div>
        <Proposals place={place} sessions={draft.sessions} take={draft.take} />
        <Answer audit={draft.audit} notches={draft.notches} pointer={pointer} turn={turn} />
      </aside>
      <PublishDialog
        open={publishing}
        week={place.week}
        audit={draft.audit}
        close={() => setPublishing(false)}
        publish={async () => {
          await draft.publish();
          go(`${weekPath(place.athlete, place.week, "sheet")}?basis=planned`);
        }}
      />
    </div>
  );
}

function SessionLines({
  session,
  words,
  change,
}: {
  session: Schemas["DraftSession"];
  words: Schemas["DraftSet"][];
  change: (number: number, change: (line: Schemas["Line"]) => Schemas["Line"]) => void;
}) {
  return (
    <table className="mb-5 w-full table-fixed border-b border-rule">
      <colgroup>
        <col />
        <col className="w-28" />
        <col className="w-34" />
        <col className="w-40" />
      </colgroup>
      <thead>
        <tr className="border-b border-rule text-sm text-ink-2 italic">
          <th scope="colgroup" className="py-1 text-left">
            <span className="font-semibold text-ink not-italic">{day(session.date)}</span>{" "}
            <span className="font-normal">{session.title}</span>
          </th>
          <Heads
            heads={[
              { says: "sets", figure: true, className: "pr-6" },
              ...["reps", "load"].map((says) => ({ says, figure: true, className: "pr-13" })),
            ]}
          />
        </tr>
      </thead>
      <tbody>
        {session.lines.map((line, number) => {
          const word = words[number];
          const set = line.units[0]?.[0];
          if (!set) return null;
          const put = (values: Partial<Schemas["Set"]>) =>
            change(number, (now) => ({
              ...now,
              units: now.units.map((unit) => unit.map((one) => ({ ...one, ...values }))),
            }));
          const name = word?.movement ?? set.exercise ?? "";
          const circuit = line.kind === "rounds";
          return (
            <tr
              key={`${number}/${name}`}
              className={`border-b border-hair last:border-b-0 ${line.count === 0 ? "text-ink-2 line-through" : ""} ${word?.turns ? "" : "text-ink-2"}`}
            >
              <th
                scope="row"
                className="truncate py-0.5 pr-3 text-left font-normal"
                title={word?.text}
              >
                {name}
                <span className="text-sm text-ink-2"> {circuit ? "" : extras(set)}</span>
              </th>
              <td className="figure">
                <Stepper
                  label={`${name}, ${line.kind ?? "sets"}`}
                  value={line.count}
                  step={1}
                  whole
                  most={99}
                  set={(count) => change(number, (now) => ({ ...now, count }))}
                />
              </td>
              {circuit ? (
                <td
                  colSpan={2}
                  className="truncate pr-2 pl-4 text-sm text-ink-2"
                  title={word?.text}
                >
                  rounds of {line.units[0]?.length ?? 0} sets; change them in Write
                </td>
              ) : (
                <>
                  <td className="figure">
                    {set.reps != null ? (
                      <Stepper
                        label={`${name}, reps`}
                        value={set.reps}
                        step={1}
                        whole
                        least={Math.max(1, set.partial_reps ?? 0)}
                        most={999}
                        unit={SIDE[set.sides ?? "both"] ?? ""}
                        set={(reps) => put({ reps })}
                      />
                    ) : (
                      <Stepper
                        label={`${name}, seconds`}
                        value={set.seconds ?? 0}
                        step={5}
                        most={3600}
                        unit="s"
                        set={(seconds) => put({ seconds })}
                      />
                    )}
                  </td>
                  <td className="figure">
                    {set.load_kg ? (
                      <>
                        {(set.implements ?? 1) > 1 && (
                          <span className="text-sm text-ink-2">{set.implements} × </span>
                        )}
                        <Stepper
                          label={`${name}, load in ${weightUnit()}`}
                          value={typedWeight(set.load_kg)}
                          step={word ? typedWeight(word.load_step_kg) : 1}
                          least={set.load_kg < 0 ? -500 : 0.5}
                          most={1000}
                          unit={weightUnit()}
                          set={(load) => put({ load_kg: keptWeight(load), ...entered() })}
                        />
                      </>
                    ) : (
                      <span className="pr-13 text-ink-2">–</span>
                    )}
                  </td>
                </>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The unit that a load was entered in, which it is shown in from then on. */
const entered = (): object => ({ unit: weightUnit() === "lb" ? "lb" : undefined });

const SIDE: Record<string, string> = {
  both: "",
  each: "ea",
  alternating: "alt",
  left: "L",
  right: "R",
};

function extras(set: Schemas["Set"]): string {
  return [
    set.warm_up && "warm-up",
    set.tempo && `tempo ${set.tempo}`,
    set.hold_s ? `hold ${set.hold_s} s` : "",
  ]
    .filter(Boolean)
    .join(", ");
}
