import { useState } from "react";
import { Link } from "react-router";
import type { Basis, Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { decisions, markWeek } from "@/api/decisions";
import type { WeekPlace } from "@/api/place";
import { May } from "@/frame/May";
import { weekPath } from "@/frame/places";
import { LevelMark } from "@/marks/LevelMark";
import { Sparkline } from "@/marks/Sparkline";
import { count, KIND_WORDS } from "@/words";
import type { Sheet } from "./open";
import { DecideForm, type Lasts } from "./DecideForm";

/** So many lines are open; the rest says how many it is. */
const OPEN_LINES = 2;

type Line = Schemas["NewsOut"];

interface Props {
  sheet: Pick<Sheet, "news" | "in_block">;
  place: WeekPlace;
  basis: Basis;
  /** Go to a cause, by its place. */
  choose: (cause: number) => void;
}

/** What is news in the week, before the causes and all that follows from them. */
export function News({ sheet: { news, in_block }, place, basis, choose }: Props) {
  const [all, setAll] = useState(false);
  if (news.length === 0) return null;
  const more = news.length - OPEN_LINES;
  return (
    <section aria-label="What is new" className="border-b border-rule bg-band/40 px-4 py-2">
      <ul>
        {news.map((line, at) => (
          <li
            key={line.sentence}
            className={`flex gap-2 py-1 ${all || at < OPEN_LINES ? "" : "hidden print:flex"}`}
          >
            <span className="flex w-20 shrink-0 items-center gap-1.5 self-start text-sm text-ink-2 italic">
              <LevelMark level={line.level} struck={line.kind === "eased"} />
              {line.says}
            </span>
            <div className="min-w-0 flex-1">
              <Sentence line={line} choose={choose} />
              {line.points.length > 2 && (
                <Sparkline points={line.points} label={`Week by week: ${line.sentence}`} />
              )}
              {line.kind === "doubt" && (
                <May right="log">
                  <Link
                    className="trail-link no-print inline-block min-h-6 text-sm"
                    to={weekPath(place.athlete, place.week, "log")}
                  >
                    Mend it in the log
                  </Link>
                </May>
              )}
              <May right="plan">
                <Answer line={line} place={place} basis={basis} inBlock={in_block} />
              </May>
            </div>
          </li>
        ))}
      </ul>
      {more > 0 && (
        <button
          type="button"
          className="trail-link no-print min-h-6 text-sm"
          aria-expanded={all}
          onClick={() => setAll(!all)}
        >
          {all ? "Only the first two" : count(more, "more line")}
        </button>
      )}
    </section>
  );
}

function Sentence({ line, choose }: { line: Line; choose: Props["choose"] }) {
  const { cause } = line;
  const words = (
    <>
      {line.sentence} {line.ask && <span className="text-ink-2 italic">{line.ask}</span>}
    </>
  );
  if (cause === null) return <p>{words}</p>;
  return (
    <button type="button" className="text-left hover:underline" onClick={() => choose(cause)}>
      {words}
    </button>
  );
}

/** What a coach may say to a line: that the week is of a kind, or that what stands is intended. */
function Answer({
  line,
  place,
  basis,
  inBlock,
}: {
  line: Line;
  place: WeekPlace;
  basis: Basis;
  inBlock: boolean;
}) {
  const [open, setOpen] = useState(false);
  const mark = useChange((kind: Schemas["KindBody"]["kind"]) => markWeek(place, kind));
  const decide = useChange((said: { lasts: Lasts; reason: string }) =>
    decisions.make(place, { basis, keys: line.keys, ...said }),
  );
  const error = mark.error ?? decide.error;
  return (
    <div className="no-print text-sm">
      {line.looks_like && (
        <button
          type="button"
          className="trail-link min-h-6"
          disabled={mark.isPending}
          onClick={() => mark.mutate(line.looks_like)}
        >
          Mark it as {KIND_WORDS[line.looks_like]}
        </button>
      )}
      {line.can_be_decided && !open && (
        <button type="button" className="trail-link min-h-6" onClick={() => setOpen(true)}>
          Decide
        </button>
      )}
      {open && (
        <DecideForm
          inBlock={inBlock}
          pending={decide.isPending}
          decide={(lasts, reason) => decide.mutate({ lasts, reason })}
          close={() => setOpen(false)}
        />
      )}
      {error && (
        <p role="alert" className="text-high">
          {error.message}
        </p>
      )}
    </div>
  );
}
