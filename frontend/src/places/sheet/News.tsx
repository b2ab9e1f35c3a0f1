import { useState } from "react";
import type { Schemas } from "@/api/client";
import { LevelMark } from "@/marks/LevelMark";
import { count } from "@/words";

/** So many lines are open; the rest says how many it is. */
const OPEN_LINES = 2;

const KINDS: Record<Schemas["NewsOut"]["kind"], string> = {
  new: "new",
  worse: "worse",
  standing: "still",
  eased: "gone",
};

interface Props {
  news: Schemas["NewsOut"][];
  /** Go to a cause, by its place. */
  choose: (cause: number) => void;
}

/** What is news in the week, before the causes and all that follows from them. */
export function News({ news, choose }: Props) {
  const [all, setAll] = useState(false);
  if (news.length === 0) return null;
  const more = news.length - OPEN_LINES;
  return (
    <section aria-label="What is new" className="border-b border-rule bg-band/40 px-4 py-2">
      <ul>
        {news.map((line, at) => (
          <li
            key={line.sentence}
            className={`flex gap-2 py-0.5 ${all || at < OPEN_LINES ? "" : "hidden print:flex"}`}
          >
            <span className="flex w-17 shrink-0 items-center gap-1.5 self-start text-sm text-ink-2 italic">
              <LevelMark level={line.level} struck={line.kind === "eased"} />
              {KINDS[line.kind]}
            </span>
            <Line line={line} choose={choose} />
          </li>
        ))}
      </ul>
      {more > 0 && (
        <button
          type="button"
          className="trail-link no-print text-sm"
          aria-expanded={all}
          onClick={() => setAll(!all)}
        >
          {all ? "Only the first two" : count(more, "more line")}
        </button>
      )}
    </section>
  );
}

function Line({ line, choose }: { line: Schemas["NewsOut"]; choose: Props["choose"] }) {
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
