import { useState } from "react";
import type { Schemas } from "@/api/client";
import { blocks } from "@/api/block";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { useTemplates } from "@/api/templates";
import { DialogSheet } from "@/frame/DialogSheet";
import { weekName } from "@/words";
import { type Change, ChangeFields, NONE } from "./ChangeFields";
import { LENGTHS, Weeks } from "./Weeks";
import { useTyped } from "@/frame/useTyped";

interface Props {
  place: WeekPlace;
  /** The first week of the block. */
  first: string;
  open: boolean;
  close: () => void;
  tell: (remarks: string[]) => void;
}

type Template = Schemas["TemplateOut"];
type Fill = Schemas["NewBlockBody"]["fill"];

/** A new block: how long, what fills it, and which of its weeks are lighter. */
export function NewBlock({ place, first, open, close, tell }: Props) {
  const found = useTemplates();
  const [title, setTitle] = useTyped("title of a block");
  const [weeks, setWeeks] = useState(4);
  const [fill, setFill] = useState<Fill>("week before");
  const [template, setTemplate] = useState<number | null>(null);
  const [change, setChange] = useState<Change>({ ...NONE, load: 0.025 });
  const [every, setEvery] = useState(4);
  const all = found.data?.templates ?? [];
  const chosen = template ?? all[0]?.id ?? null;
  const make = useChange(async () => {
    const made = await blocks.add(
      { ...place, week: first },
      {
        title,
        weeks,
        fill,
        template: fill === "template" ? chosen : null,
        change,
        lighter_every: fill === "nothing" ? 0 : every,
      },
    );
    tell(made.laid.remarks ?? []);
    close();
  });
  return (
    <DialogSheet
      open={open}
      close={close}
      title={`A block from ${weekName(first).toLowerCase()} on`}
    >
      <TitleAndWeeks title={title} setTitle={setTitle} weeks={weeks} setWeeks={setWeeks} />
      <FilledWith fill={fill} put={setFill} templates={all} chosen={chosen} choose={setTemplate} />
      {fill === "week before" && (
        <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm">
          <ChangeFields value={change} put={setChange} />
        </div>
      )}
      {fill !== "nothing" && (
        <label className="mt-2 block text-sm">
          Lighter{" "}
          <select
            value={every}
            onChange={(event) => setEvery(Number(event.target.value))}
            className="field h-7 py-0"
          >
            <option value={0}>no week</option>
            {[3, 4, 5, 6].map((one) => (
              <option key={one} value={one}>
                every {one === 3 ? "3rd" : `${one}th`} week
              </option>
            ))}
          </select>
        </label>
      )}
      {make.error && (
        <p role="alert" className="mt-2 text-high">
          {make.error.message}
        </p>
      )}
      <p className="mt-3 text-xs text-ink-2">
        Loads are rounded to what the kit has. Sessions already on these days are replaced; Undo
        brings them back. A return from a break starts low.
      </p>
      <div className="mt-3 flex gap-3">
        <button
          type="button"
          className="ink-button"
          disabled={make.isPending || (fill === "template" && chosen === null)}
          onClick={() => make.mutate(undefined)}
        >
          Create the block
        </button>
        <button type="button" className="key-button" onClick={close}>
          Close
        </button>
      </div>
    </DialogSheet>
  );
}

interface FilledWithProps {
  fill: Fill;
  put: (fill: Fill) => void;
  templates: Template[];
  chosen: number | null;
  choose: (template: number) => void;
}

/** What stands in the weeks of the block to begin with. */
function FilledWith({ fill, put, templates, chosen, choose }: FilledWithProps) {
  const choice = (value: Fill, says: string) => (
    <label className="flex min-h-6 items-center gap-2">
      <input
        type="radio"
        name="fill"
        className="accent-ink"
        checked={fill === value}
        onChange={() => put(value)}
      />
      {says}
    </label>
  );
  return (
    <fieldset className="mt-3">
      <legend className="text-ink-2 italic">Filled with</legend>
      {choice("week before", "the plan of the week before, a step more each week")}
      {choice("template", "a template")}
      {fill === "template" &&
        (templates.length > 0 ? (
          <select
            aria-label="Template"
            value={chosen ?? ""}
            onChange={(event) => choose(Number(event.target.value))}
            className="field my-1 ml-6 h-8"
          >
            {templates.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}, {one.weeks} week{one.weeks === 1 ? "" : "s"}
              </option>
            ))}
          </select>
        ) : (
          <p className="ml-6 text-ink-2">No templates yet: save some planned weeks as one first.</p>
        ))}
      {choice("nothing", "nothing yet")}
    </fieldset>
  );
}

interface TitleAndWeeksProps {
  title: string;
  setTitle: (title: string) => void;
  weeks: number;
  setWeeks: (weeks: number) => void;
}

function TitleAndWeeks({ title, setTitle, weeks, setWeeks }: TitleAndWeeksProps) {
  return (
    <div className="flex gap-4">
      <label className="flex-1">
        Title
        <input
          value={title}
          maxLength={120}
          onChange={(event) => setTitle(event.target.value)}
          className="field mt-0.5 w-full"
        />
      </label>
      <label>
        Weeks
        <Weeks
          value={weeks}
          lengths={LENGTHS}
          put={setWeeks}
          className="field mt-0.5 block h-8.5 w-20"
        />
      </label>
    </div>
  );
}
