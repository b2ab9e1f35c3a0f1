import { useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { useKeys } from "@/frame/keys";
import { weekPath } from "@/frame/places";
import { LevelMark } from "@/marks/LevelMark";
import { count } from "@/words";

type Cause = Schemas["SquadCauseOut"];
type Levels = Schemas["LevelsOut"];

/** So many causes stand on the page at once. */
const FIRST = 8;

interface Props {
  data: Schemas["SquadOut"];
  common: Schemas["Common"];
  /** Where the shared sessions are changed; nowhere for whoever may not. */
  draft: string | null;
}

/** What several have in common: each with its sentence, its people, and the step that mends it. */
export function Causes({ data, common, draft }: Props) {
  const [all, setAll] = useState(false);
  const list = useRef<HTMLUListElement>(null);
  const move = (by: number) => {
    const rows = [...(list.current?.querySelectorAll<HTMLElement>("[data-cause] a") ?? [])];
    const first = rows.filter((one, at) => rows[at - 1]?.closest("li") !== one.closest("li"));
    const row = document.activeElement?.closest("li");
    const at = first.findIndex((one) => one.closest("li") === row);
    first.at(at < 0 ? (by > 0 ? 0 : -1) : (at + by) % first.length)?.focus();
  };
  useKeys({ nextFinding: () => move(1), previousFinding: () => move(-1) });
  const shown = all ? common.causes : common.causes.slice(0, FIRST);
  return (
    <section aria-labelledby="common" className="border-y border-rule py-2">
      <h2 id="common" className="text-sm text-ink-2 italic">
        In common
      </h2>
      {common.causes.length === 0 && (
        <p className="py-1">
          Nothing in common this week.{" "}
          {common.findings.high + common.findings.caution === 0
            ? "There are no findings."
            : `Every finding is an athlete’s own: ${levelWords(common.findings)}.`}
        </p>
      )}
      <ul ref={list}>
        {shown.map((cause) => (
          <CauseLine
            key={`${cause.code}/${cause.subject}/${cause.people[0]?.id ?? 0}`}
            cause={cause}
            data={data}
            draft={draft}
          />
        ))}
      </ul>
      {shown.length < common.causes.length && (
        <button type="button" className="trail-link text-sm" onClick={() => setAll(true)}>
          {count(common.causes.length - shown.length, "more cause")}
        </button>
      )}
    </section>
  );
}

const levelWords = ({ high, caution }: Levels) =>
  high + caution === 0
    ? "no findings"
    : [high && `${high} high`, caution && count(caution, "caution")].filter(Boolean).join(" and ");

interface LineProps {
  cause: Cause;
  data: Props["data"];
  draft: string | null;
}

function CauseLine({ cause, data, draft }: LineProps) {
  const place = data.basis === "planned" ? "dial" : "sheet";
  return (
    <li
      data-cause={cause.code}
      className="flex items-baseline gap-3 border-b border-hair py-1.5 last:border-b-0 max-md:flex-wrap"
    >
      <LevelMark level={cause.explains.high > 0 ? "high" : "caution"} />
      <div className="min-w-0 flex-1 max-md:basis-4/5">
        <p className="text-lg leading-snug">{cause.sentence}</p>
        <p className="text-sm">
          {cause.people.map((one, at) => (
            <span key={one.id}>
              {at > 0 && ", "}
              <Link to={weekPath(one.id, data.week, place)} className="trail-link">
                {one.name}
              </Link>{" "}
              <span className="text-ink-2">{one.findings}</span>
            </span>
          ))}
        </p>
        <p className="text-sm text-ink-2">
          {count(cause.explains.high + cause.explains.caution, "finding")}; without it the squad is
          left with {levelWords(cause.left)}. {cause.step}
        </p>
      </div>
      {cause.code === "programme" && draft && (
        <Link to={draft} className="key-button no-print shrink-0 max-md:ml-9">
          Change for all
        </Link>
      )}
      {cause.code === "rule" && (
        <Link to="/rules" className="key-button no-print shrink-0 max-md:ml-9">
          House rules
        </Link>
      )}
      {cause.code === "day" && cause.people[0] && (
        <Link
          to={weekPath(cause.people[0].id, data.week, "log")}
          className="key-button no-print shrink-0 max-md:ml-9"
        >
          Open the logs
        </Link>
      )}
    </li>
  );
}
