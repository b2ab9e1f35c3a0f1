import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { changes } from "@/api/journal";
import { useRoster } from "@/api/roster";
import { templates, useTemplates } from "@/api/templates";
import { DialogSheet } from "@/frame/DialogSheet";
import { count, weekName } from "@/words";
import { squadsOf } from "@/frame/squads";
import { LENGTHS, Weeks } from "./Weeks";
import { useTyped } from "@/frame/useTyped";

type Template = Schemas["TemplateOut"];

interface Props {
  place: WeekPlace;
  /** The week in hand. */
  week: string;
  open: boolean;
  close: () => void;
}

/** Weeks kept under a name, and laid over the weeks of several athletes at once. */
export function TemplateDialog({ place, week, open, close }: Props) {
  const found = useTemplates();
  const roster = useRoster();
  const [chosen, setChosen] = useState<number | null>(null);
  const [athletes, setAthletes] = useState<number[]>([place.athlete]);
  const [laid, setLaid] = useState<Schemas["TemplateLaid"] | null>(null);
  const [removed, setRemoved] = useState<Template | null>(null);
  /** What of it could not be taken back, and why. */
  const [stays, setStays] = useState<string[]>([]);
  const lay = useChange(async (template: number) => {
    setStays([]);
    setLaid(await templates.lay(template, { athletes, week }));
  });
  const undo = useChange(async (body: Schemas["TemplateLaid"]) => {
    // One change of the journal: any of its entries takes the whole of it back.
    const [first] = body.laid;
    const done = first && (await changes.undo({ id: first.change, whole: true }));
    setLaid(null);
    setStays(done?.stays ?? []);
  });
  const take = useChange(async (one: Template) => {
    await templates.remove(one.id);
    setRemoved(one);
  });
  const restore = useChange(async (one: Template) => {
    await templates.restore(one.id);
    setRemoved(null);
  });
  const all = found.data?.templates ?? [];
  const template = all.find((one) => one.id === chosen) ?? all[0];
  const error = lay.error ?? undo.error ?? take.error ?? restore.error;
  const people = roster.data?.athletes ?? [];
  return (
    <DialogSheet open={open} close={close} title="Templates" wide>
      <Keep place={place} week={week} kept={setChosen} />
      {template ? (
        <section className="mt-3 grid grid-cols-[14rem_1fr] gap-6">
          <List all={all} chosen={template} choose={setChosen} remove={take.mutate} />
          <ForWhom
            template={template}
            week={week}
            people={people}
            everybody={roster.data?.waiting.length === 0}
            athletes={athletes}
            choose={setAthletes}
            busy={lay.isPending}
            lay={() => lay.mutate(template.id)}
          />
        </section>
      ) : (
        <p className="mt-3 text-ink-2">
          No templates yet. Save a planned week under a name, then use it for anybody.
        </p>
      )}
      <div role="status" className="mt-3 min-h-6 text-sm">
        {laid && (
          <>
            Used for {laid.laid.length} athlete{laid.laid.length === 1 ? "" : "s"}.{" "}
            <button type="button" className="trail-link" onClick={() => undo.mutate(laid)}>
              Undo
            </button>
          </>
        )}
        {stays.length > 0 && <p>The rest is undone. This could not be: {stays.join(" ")}</p>}
        {removed && (
          <>
            {removed.name} removed.{" "}
            <button type="button" className="trail-link" onClick={() => restore.mutate(removed)}>
              Undo
            </button>
          </>
        )}
      </div>
      {error && (
        <p role="alert" className="text-high">
          {error.message}
        </p>
      )}
      <p className="text-xs text-ink-2">
        Loads are copied as they are: check each athlete&rsquo;s week before they train it.
      </p>
      <button type="button" className="key-button mt-3" onClick={close}>
        Close
      </button>
    </DialogSheet>
  );
}

interface KeepProps {
  place: WeekPlace;
  week: string;
  kept: (template: number) => void;
}

/** Weeks of this athlete under a name. */
function Keep({ place, week, kept }: KeepProps) {
  const [name, setName] = useTyped("name of a template");
  const [weeks, setWeeks] = useState(1);
  const keep = useChange(async () => {
    const made = await templates.keep({ ...place, week }, { name, weeks });
    setName("");
    kept(made.id);
  });
  return (
    <>
      <section className="flex flex-wrap items-end gap-3 border-b border-hair pb-3">
        <label className="flex-1">
          Save {weekName(week).toLowerCase()}
          {weeks > 1 ? ` and the ${weeks - 1} after it` : ""} under the name
          <input
            value={name}
            maxLength={120}
            onChange={(event) => setName(event.target.value)}
            className="field mt-0.5 w-full"
          />
        </label>
        <label>
          Weeks
          <Weeks
            value={weeks}
            lengths={[1, 2, ...LENGTHS]}
            put={setWeeks}
            className="field mt-0.5 block h-8.5 w-20"
          />
        </label>
        <button
          type="button"
          className="key-button"
          disabled={!name.trim() || keep.isPending}
          onClick={() => keep.mutate(undefined)}
        >
          Save
        </button>
      </section>
      {keep.error && (
        <p role="alert" className="text-high">
          {keep.error.message}
        </p>
      )}
    </>
  );
}

interface ListProps {
  all: Template[];
  chosen: Template;
  choose: (id: number) => void;
  remove: (template: Template) => void;
}

function List({ all, chosen, choose, remove }: ListProps) {
  return (
    <ul aria-label="Templates">
      {all.map((one) => (
        <li
          key={one.id}
          className={`flex items-baseline border-b border-hair ${one === chosen ? "bg-band/60" : ""}`}
        >
          <button
            type="button"
            aria-pressed={one === chosen}
            className="min-w-0 flex-1 truncate px-2 py-1 text-left"
            onClick={() => choose(one.id)}
          >
            {one.name}{" "}
            <span className="text-sm text-ink-2">
              {one.unread.length > 0 && (
                <span
                  className="mr-2 text-high"
                  title={`Laid as written, not counted: ${one.unread.join("; ")}`}
                >
                  {count(one.unread.length, "line")} not read
                </span>
              )}
              {count(one.weeks, "week")}, {count(one.sessions, "session")}
            </span>
          </button>
          <button
            type="button"
            aria-label={`Remove ${one.name}`}
            className="h-6 w-6 text-ink-2"
            onClick={() => remove(one)}
          >
            ×
          </button>
        </li>
      ))}
    </ul>
  );
}

interface ForWhomProps {
  template: Template;
  week: string;
  people: { id: number; name: string; squad: string }[];
  /** Whether they are all: while some are still counted, nobody can say "all". */
  everybody: boolean;
  athletes: number[];
  choose: (how: (now: number[]) => number[]) => void;
  busy: boolean;
  lay: () => void;
}

/** Over whose weeks it is laid. */
function ForWhom(props: ForWhomProps) {
  const { template, week, people, everybody, athletes, choose, busy, lay } = props;
  return (
    <fieldset>
      <legend className="mb-1">
        Use {template.name} from {weekName(week).toLowerCase()} on for
      </legend>
      <div className="columns-2 text-sm">
        {people.map((one) => (
          <label key={one.id} className="flex min-h-6 break-inside-avoid items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-ink"
              checked={athletes.includes(one.id)}
              onChange={(event) =>
                choose((now) =>
                  event.target.checked ? [...now, one.id] : now.filter((other) => other !== one.id),
                )
              }
            />
            {one.name}
          </label>
        ))}
      </div>
      <p className="mt-2 flex items-center gap-3 text-sm">
        <button
          type="button"
          className="trail-link"
          disabled={!everybody}
          onClick={() => choose(() => people.map((one) => one.id))}
        >
          all
        </button>
        <button type="button" className="trail-link" onClick={() => choose(() => [])}>
          none
        </button>
        {squadsOf(people).map((squad) => (
          <button
            key={squad}
            type="button"
            className="trail-link"
            disabled={!everybody}
            onClick={() =>
              choose(() => people.filter((one) => one.squad === squad).map((one) => one.id))
            }
          >
            {squad}
          </button>
        ))}
        <button
          type="button"
          className="ink-button ml-auto"
          disabled={athletes.length === 0 || busy}
          onClick={lay}
        >
          Use for {athletes.length} athlete{athletes.length === 1 ? "" : "s"}
        </button>
      </p>
    </fieldset>
  );
}
