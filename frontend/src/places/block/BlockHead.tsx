import { useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { blocks } from "@/api/block";
import { useChange } from "@/api/changes";
import { useMay } from "@/api/me";
import { type WeekPlace } from "@/api/place";
import { May } from "@/frame/May";
import { NewBlock } from "./NewBlock";
import { SinceDialog } from "./SinceDialog";
import { TemplateDialog } from "./TemplateDialog";
import { LENGTHS, Weeks } from "./Weeks";

interface Props {
  place: WeekPlace;
  /** The week in hand. */
  week: string;
  stored: Schemas["StoredBlock"] | null;
  weeks: number;
  show: (weeks: number) => void;
  /** What is to be said of a new block that was filled. */
  tell: (remarks: string[]) => void;
}

/** Which block is shown, and what can be done with whole weeks: make, keep, lay, send and take in. */
export function BlockHead({ place, week, stored, weeks, show, tell }: Props) {
  const [dialog, setDialog] = useState<"new" | "templates" | "since" | null>(null);
  const change = useChange((body: Schemas["BlockBody"]) =>
    blocks.change(place.athlete, stored?.id ?? 0, body),
  );
  const remove = useChange(() => blocks.remove(place.athlete, stored?.id ?? 0));
  const take = useChange((text: string) => blocks.takeText(place, text));
  const error = change.error ?? remove.error ?? take.error;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 pb-2 text-sm">
        {stored ? (
          <StoredBlock
            stored={stored}
            change={change.mutate}
            remove={() => remove.mutate(undefined)}
          />
        ) : (
          <>
            <span className="text-base text-ink-2">No block here yet</span>
            <label className="text-ink-2">
              showing{" "}
              <Weeks
                label="Weeks shown"
                value={weeks}
                lengths={LENGTHS}
                put={show}
                className="h-6 bg-sheet text-ink"
              />{" "}
              weeks
            </label>
          </>
        )}
        <span className="ml-auto flex flex-wrap items-baseline gap-x-4 gap-y-2">
          <May right="plan">
            <button type="button" className="key-button" onClick={() => setDialog("new")}>
              New block
            </button>
            <button type="button" className="key-button" onClick={() => setDialog("templates")}>
              Templates
            </button>
          </May>
          <button
            type="button"
            className="trail-link text-ink-2"
            onClick={() => setDialog("since")}
          >
            Since the last block
          </button>
          <InAndOut place={place} weeks={weeks} take={take.mutate} />
        </span>
      </div>
      {error && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3 text-sm whitespace-pre-line">
          {error.message}
        </p>
      )}
      <NewBlock
        place={place}
        first={week}
        open={dialog === "new"}
        close={() => setDialog(null)}
        tell={tell}
      />
      <SinceDialog
        place={{ ...place, week }}
        open={dialog === "since"}
        close={() => setDialog(null)}
      />
      <TemplateDialog
        place={place}
        week={week}
        open={dialog === "templates"}
        close={() => setDialog(null)}
      />
    </>
  );
}

interface StoredBlockProps {
  stored: Schemas["StoredBlock"];
  change: (body: Schemas["BlockBody"]) => void;
  remove: () => void;
}

/** The block that is shown: its title and its length. */
function StoredBlock({ stored, change, remove }: StoredBlockProps) {
  const [typed, setTyped] = useState<string | null>(null);
  if (!useMay("plan"))
    return (
      <span className="text-base font-semibold">
        {stored.title || "Block without a title"}, {stored.weeks} weeks
      </span>
    );
  return (
    <>
      <input
        aria-label="Title of the block"
        value={typed ?? stored.title}
        placeholder="Block without a title"
        maxLength={120}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && typed !== stored.title)
            change({ title: typed, weeks: stored.weeks });
          setTyped(null);
        }}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        className="h-7 w-64 border-b border-hair bg-transparent text-base font-semibold"
      />
      <label className="text-ink-2">
        <Weeks
          label="Weeks of the block"
          value={stored.weeks}
          lengths={LENGTHS}
          put={(weeks) => change({ title: stored.title, weeks })}
          className="h-6 bg-sheet text-ink"
        />{" "}
        weeks
      </label>
      <button type="button" className="trail-link text-ink-2" onClick={remove}>
        Remove the block
      </button>
    </>
  );
}

interface InAndOutProps {
  place: WeekPlace;
  weeks: number;
  take: (text: string) => void;
}

/** The weeks as a calendar or a text, and a text in. */
function InAndOut({ place, weeks, take }: InAndOutProps) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      {["calendar", "text"].map((one) => (
        <a
          key={one}
          download
          className="trail-link text-ink-2"
          href={`/api/athletes/${place.athlete}/weeks/${place.week}/block/${one}?weeks=${weeks}`}
        >
          {one === "calendar" ? "To a calendar" : "Save as text"}
        </a>
      ))}
      <May right="plan">
        <button
          type="button"
          className="trail-link text-ink-2"
          onClick={() => file.current?.click()}
        >
          Read from text
        </button>
      </May>
      <input
        ref={file}
        type="file"
        accept=".txt,text/plain"
        aria-label="Sessions as a text file"
        className="sr-only"
        tabIndex={-1}
        onChange={async (event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = "";
          if (chosen) take(await chosen.text());
        }}
      />
    </>
  );
}
