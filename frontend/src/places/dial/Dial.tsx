import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { dial, useDraft } from "@/api/dial";
import { type WeekPlace } from "@/api/place";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { weekPath } from "@/frame/places";
import { DialFace } from "@/marks/DialFace";
import { LadderFace } from "@/marks/LadderFace";
import { weekName } from "@/words";
import { Answer } from "@/shared/DraftAnswer";
import { DialHead } from "./DialHead";
import { MovementDialog, type Wanted } from "./MovementDialog";
import { Nearest } from "./Nearest";
import { NextSteps } from "./NextSteps";
import { Proposals } from "./Proposals";
import { shownNotches } from "./nearest";
import { asTaken, proposed } from "./proposed";
import { type ProposalDesk, useProposalDesk } from "./useProposal";
import { PublishDialog } from "./PublishDialog";
import { SessionLines } from "./SessionLines";
import { withLine } from "./draft";
import { useDialDraft } from "./useDialDraft";
import type { Saving } from "./useDraftStore";

/** The draft of a week's plan: turn the dial or step a line, and the audit answers at once. */
export function Dial() {
  const place = useWeekPlace();
  const draft = useDraft(place);
  if (draft.error) return <Failure error={draft.error} />;
  if (!draft.data || draft.isRefetching)
    return <p className="p-6 text-ink-2">Loading the draft…</p>;
  // A draft that was fetched anew is another draft in hand.
  return (
    <Desk
      key={`${place.athlete}/${place.week}/${draft.dataUpdatedAt}`}
      place={place}
      opened={draft.data}
    />
  );
}

type Draft = ReturnType<typeof useDialDraft>;

const ORIGINS: Record<string, (week: string) => string> = {
  saved: () => "Your saved draft",
  plan: () => "From the plan as published",
  "last plan": (week) => `From the plan of ${weekName(week).toLowerCase()}`,
  "last log": (week) => `From what was done in ${weekName(week).toLowerCase()}`,
  empty: () => "Nothing planned yet",
};

const SAVED: Record<Saving, string> = {
  stored: "saved",
  changed: "saving…",
  saving: "saving…",
  stale: "not saved: changed in another window",
  refused: "not saved",
  "cut off": "not saved yet: trying again",
};
const UNSAVED: Saving[] = ["stale", "refused", "cut off"];

function Desk({ place, opened }: { place: WeekPlace; opened: Schemas["DraftOut"] }) {
  const draft = useDialDraft(place, opened);
  const [publishing, setPublishing] = useState(false);
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const go = useNavigate();
  // Who comes from a cause wants to see what can be done.
  const [params] = useSearchParams();
  const desk = useProposalDesk(place, draft.sessions, params.has("propose"));
  const all = (desk.open && !desk.asking && desk.proposal?.steps) || [];
  const steps = proposed(all, draft.sessions);
  const take = (wanted: Schemas["TakeStep"][]) =>
    draft.taken((now, signal) => dial.take(place, now, wanted, signal));
  useKeys({ undo: draft.undo });
  if (opened.sessions.length === 0) return <Nothing />;
  return (
    <div className="beside grid-cols-[minmax(0,1fr)_28rem]">
      <main className="min-h-0 overflow-auto bg-sheet px-6 pt-3 pb-10 max-md:contents">
        <Head week={place.week} opened={opened} draft={draft} publish={() => setPublishing(true)} />
        {draft.error && (
          <p
            role="alert"
            className="mb-2 border-l-4 border-high pl-3 text-sm max-md:order-1 max-md:mx-4"
          >
            {draft.error}
          </p>
        )}
        {/* A phone has the dial first, then the lines that it turns, then what is said of them. */}
        <div className="max-md:order-3 max-md:bg-sheet max-md:px-4 max-md:pb-4">
          {draft.sessions.map((session, at) => (
            <SessionLines
              key={`${session.date}/${at}`}
              session={session}
              words={draft.audit.lines[at] ?? []}
              proposed={steps.get(at)}
              take={({ bundle }) =>
                void take(all.filter((one) => one.bundle === bundle).map(asTaken))
              }
              logged={opened.logged.includes(session.date)}
              want={(line, name) => setWanted({ session: at, line, name })}
              change={(number, change) => draft.edit((all) => withLine(all, at, number, change))}
            />
          ))}
        </div>
      </main>
      <Side place={place} opened={opened} draft={draft} desk={desk} take={take} />
      <MovementDialog
        place={place}
        sessions={draft.sessions}
        wanted={wanted}
        close={() => setWanted(null)}
        put={(movement) => {
          if (wanted)
            void draft.taken((now, signal) =>
              dial.put(
                place,
                { sessions: now, session: wanted.session, line: wanted.line, movement },
                signal,
              ),
            );
          setWanted(null);
        }}
      />
      <PublishDialog
        open={publishing}
        place={place}
        sessions={draft.sessions}
        audit={draft.audit}
        close={() => setPublishing(false)}
        publish={async (logged) => {
          const change = await draft.publish(logged);
          go(`${weekPath(place.athlete, place.week, "sheet")}?basis=planned`, {
            state: { change },
          });
        }}
      />
    </div>
  );
}

function Nothing() {
  return (
    <main className="flex-1 bg-sheet px-6 py-8">
      <p className="text-lg">Nothing to adjust yet.</p>
      <p className="mt-2 max-w-prose">
        A draft begins with the week&rsquo;s plan, or with the week before it; this one has neither.
        Go back with <kbd className="font-mono text-xs">[</kbd> to a week that was trained, or{" "}
        <Link to="/files" className="trail-link">
          import a book
        </Link>
        .
      </p>
    </main>
  );
}

interface SideProps {
  place: WeekPlace;
  opened: Schemas["DraftOut"];
  draft: Draft;
  desk: ProposalDesk;
  take: (steps: Schemas["TakeStep"][]) => Promise<void>;
}

/** The dial, what it does next, what could be changed, and what the draft comes to. */
function Side({ place, opened, draft, desk, take }: SideProps) {
  const { pointer, dialled, turn } = draft;
  const [all, showAll] = useState(false);
  const clamp = (setting: number) => Math.max(dialled.least, Math.min(dialled.most, setting));
  useKeys({
    less: () => turn(clamp(pointer - 1)),
    more: () => turn(clamp(pointer + 1)),
  });
  return (
    <aside className="min-h-0 overflow-auto border-l border-rule px-5 pb-6 max-lg:order-first max-md:contents">
      <div className="max-md:order-2 max-md:px-4">
        <Face opened={opened} draft={draft} desk={desk} all={all} />
        {climbs(desk) ? (
          <p className="border-b border-rule pb-2 text-center text-sm text-ink-2">
            The dial turns how much may change.
          </p>
        ) : (
          <>
            <DialHead
              dialled={dialled}
              on={draft.on}
              putOn={draft.putOn}
              pointer={pointer}
              start={opened.start_total}
              turn={turn}
            />
            <Nearest dialled={dialled} pointer={pointer} all={all} showAll={showAll} turn={turn} />
          </>
        )}
      </div>
      <div className="max-md:order-4 max-md:px-4 max-md:pb-6">
        <Proposals desk={desk} take={take} />
        <NextSteps
          place={place}
          sessions={draft.sessions}
          take={(steps) => draft.taken((now, signal) => dial.takeNext(place, now, steps, signal))}
        />
        <Answer audit={draft.audit} />
      </div>
    </aside>
  );
}

interface HeadProps {
  week: string;
  opened: Schemas["DraftOut"];
  draft: Draft;
  publish: () => void;
}

/** Where the draft is from, whether it is stored, and what can be done with it. */
function Head({ week, opened, draft, publish }: HeadProps) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 pb-2 text-sm max-md:sticky max-md:bottom-0 max-md:z-10 max-md:order-9 max-md:border-t max-md:border-rule max-md:bg-paper max-md:px-4 max-md:pt-2">
      <p className="text-ink-2">
        {(ORIGINS[opened.origin] ?? (() => ""))(opened.origin_week)};{" "}
        <span role="status" className={UNSAVED.includes(draft.saving) ? "text-high" : ""}>
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
        <button type="button" className="ink-button" onClick={publish}>
          Publish as {weekName(week).toLowerCase()}&rsquo;s plan
        </button>
      </span>
    </div>
  );
}

/** Whether the dial turns through a proposal's ladder. */
const climbs = (desk: ProposalDesk): boolean =>
  desk.open && (desk.proposal?.ladder.length ?? 0) > 1;

interface FaceProps {
  opened: Schemas["DraftOut"];
  draft: Draft;
  desk: ProposalDesk;
  all: boolean;
}

/** The dial: of the sets of the week, or, while a proposal is shown, of how much may change. */
function Face({ opened, draft, desk, all }: FaceProps) {
  const { dialled, on, pointer } = draft;
  const rungs = desk.proposal?.ladder ?? [];
  if (climbs(desk)) {
    // Of a cost that is none of the stops by now, the last stop within it.
    const { budget } = desk;
    const chosen =
      budget === null
        ? (desk.proposal?.stop ?? 0)
        : Math.max(
            0,
            rungs.findLastIndex((rung) => rung.cost <= budget),
          );
    return (
      <LadderFace
        rungs={rungs}
        chosen={chosen}
        choose={(rung) =>
          desk.setBudget(rung === desk.proposal?.stop ? null : (rungs[rung]?.cost ?? null))
        }
      />
    );
  }
  return (
    <DialFace
      label={
        dialled.subjects.find((one) => one.kind === on.kind && one.name === on.name)?.label ??
        "sets of the week"
      }
      value={pointer}
      start={dialled.on.kind === "week" ? opened.start_total : dialled.start}
      scale={dialled}
      notches={shownNotches(dialled, pointer, all)}
      turn={draft.turn}
    />
  );
}
