import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { Basis, Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { judge, useSchools } from "@/api/sheet";
import { KEYS } from "@/frame/keys";
import { May } from "@/frame/May";
import { weekPath } from "@/frame/places";
import { LevelMark } from "@/marks/LevelMark";
import { count } from "@/words";
import { AcceptForm } from "./AcceptForm";
import { FindingActions, FindingItem } from "./FindingItem";
import { News } from "./News";
import { Offer } from "./Offer";
import { SignOff } from "./SignOff";
import type { Stop } from "./walk-verdict";
import type { Finding, Sheet } from "./open";

type Schools = Schemas["SchoolsOut"];

/** How many of the schools raise a finding, in words; nothing for a note, or before it is known. */
function raisedBy(finding: Finding, schools: Schools | undefined): string | null {
  if (!schools || finding.level === "note") return null;
  const row = schools.rows.find((one) => findingKey(one) === findingKey(finding));
  const raised = row?.levels.filter(Boolean).length ?? 0;
  return raised === schools.names.length
    ? "every school"
    : `${raised} of ${schools.names.length} schools`;
}

const findingKey = (one: Pick<Finding, "code" | "subject" | "measure">): string =>
  `${one.code}/${one.subject}/${one.measure}`;

interface Props {
  sheet: Sheet;
  place: WeekPlace;
  /** The athlete's. */
  name: string;
  basis: Basis;
  now: Stop;
  unfolded: number | null;
  go: (stop: Stop) => void;
  toggle: (cause: number) => void;
  after: string;
  /** Counts up when the reason of what is chosen is to be typed. */
  focusReason: number;
}

/** The verdict: a few causes, what follows from each folded under it; to walk, judge and sign. */
export function Verdict({
  sheet,
  place,
  name,
  basis,
  now,
  unfolded,
  go,
  toggle,
  after,
  focusReason,
}: Props) {
  const open = sheet.findings.filter((one) => !one.accepted).length;
  const causes = sheet.causes.filter((one) => !one.accepted).length;
  const caused = new Set(sheet.causes.flatMap((one) => one.findings));
  const alone = sheet.findings.map((_, at) => at).filter((at) => !caused.has(at));
  // Asked for once somebody looks closer: counting a week in every way takes its time.
  const looking = now.finding !== null || now.cause !== null;
  const schools = useSchools(place, basis, looking).data;
  const firstOpen = sheet.causes.findIndex((one) => !one.accepted);
  const item = (at: number, cause: number | null) => {
    const finding = sheet.findings[at];
    if (!finding) return null;
    const on = now.finding === at;
    return (
      <FindingItem
        key={at}
        finding={finding}
        schools={raisedBy(finding, schools)}
        place={place}
        basis={basis}
        on={on}
        under={cause !== null}
        select={() => go({ cause, finding: at })}
        focusReason={on ? focusReason : 0}
      />
    );
  };
  // Chosen again it unfolds.
  const choose = (cause: number) => {
    if (now.cause === cause && now.finding === null) toggle(cause);
    else go({ cause, finding: null });
  };
  return (
    <section
      aria-label="Findings"
      className="flex min-h-0 flex-1 basis-1/2 flex-col print-open print:flex-none"
    >
      <h2 className="flex items-baseline gap-2 border-b border-rule px-4 pt-3 pb-1.5 font-semibold">
        {headline(causes, open)}
        {sheet.findings.length > 0 && (
          <span className="no-print ml-auto text-sm font-normal whitespace-nowrap text-ink-2 max-md:hidden">
            next <kbd className="font-mono text-2xs">{KEYS.nextFinding.key}</kbd>, previous{" "}
            <kbd className="font-mono text-2xs">{KEYS.previousFinding.key}</kbd>, details{" "}
            <kbd className="font-mono text-2xs">{KEYS.unfold.key}</kbd>
          </span>
        )}
      </h2>
      <div className="min-h-0 flex-1 overflow-auto print-open print:flex-none">
        <News sheet={sheet} place={place} basis={basis} choose={choose} />
        {sheet.offer && (
          <May right="plan">
            <Offer offer={sheet.offer} place={place} name={name} />
          </May>
        )}
        <ol>
          {sheet.causes.map((cause, at) => (
            <CauseItem
              key={`${cause.code}/${cause.subject}`}
              cause={cause}
              sheet={sheet}
              place={place}
              basis={basis}
              after={after}
              schools={schools}
              on={now.cause === at && now.finding === null}
              first={!looking && at === firstOpen}
              unfolded={at === unfolded}
              choose={() => choose(at)}
              focusReason={now.cause === at && now.finding === null ? focusReason : 0}
            >
              {cause.findings.map((finding) => item(finding, at))}
            </CauseItem>
          ))}
          {alone.length > 0 && sheet.causes.length > 0 && (
            <li className="border-b border-rule px-4 pt-3 pb-1 text-sm text-ink-2 italic">
              Notes that stand alone
            </li>
          )}
          {alone.map((at) => item(at, null))}
          {sheet.findings.length === 0 && (
            <li className="px-4 py-4 text-ink-2">{nothingSaid(sheet, basis)}</li>
          )}
        </ol>
      </div>
      {basis === "completed" && <SignOff sheet={sheet} place={place} after={after} open={open} />}
    </section>
  );
}

function headline(causes: number, open: number): string {
  if (open === 0) return "Nothing open";
  if (causes === 0) return `No open points, ${count(open, "note")}`;
  return `${count(causes, "open point")}, ${count(open, "finding")}`;
}

function CauseItem({
  cause,
  sheet,
  place,
  basis,
  after,
  on,
  first: isFirst,
  schools,
  unfolded,
  choose,
  focusReason,
  children,
}: {
  cause: Schemas["CauseOut"];
  sheet: Sheet;
  place: WeekPlace;
  basis: Basis;
  after: string;
  on: boolean;
  /** What is to be looked at first, as long as nothing is chosen: it says at once what would help. */
  first: boolean;
  schools: Schools | undefined;
  unfolded: boolean;
  choose: () => void;
  focusReason: number;
  children: React.ReactNode;
}) {
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (on) row.current?.scrollIntoView({ block: "nearest" });
  }, [on]);
  const [first] = cause.findings;
  const single =
    cause.findings.length === 1 && first !== undefined ? sheet.findings[first] : undefined;
  return (
    <li ref={row} className={`border-b border-hair ${on ? "bg-sheet" : ""}`}>
      <button
        type="button"
        onClick={choose}
        aria-expanded={unfolded}
        className="flex w-full gap-3 px-4 py-2 text-left hover:bg-sheet"
      >
        <span className="pt-1">
          <LevelMark level={cause.level} struck={cause.accepted} />
        </span>
        <span className={`min-w-0 flex-1 text-sm ${cause.accepted ? "text-ink-2" : ""}`}>
          <span className={`font-semibold ${cause.accepted ? "line-through" : ""}`}>
            {cause.sentence}
          </span>
          <span className="block text-ink-2">
            {single
              ? [single.title, single.level, raisedBy(single, schools)].filter(Boolean).join(" · ")
              : `${cause.level} · ${cause.findings.length} findings ${unfolded ? "follow:" : "follow"}`}
          </span>
        </span>
      </button>
      {on && (
        <div className="px-4 pb-3 pl-13 text-sm">
          {single ? (
            <FindingActions
              finding={single}
              place={place}
              basis={basis}
              focusReason={focusReason}
            />
          ) : (
            <CauseActions
              cause={cause}
              sheet={sheet}
              place={place}
              basis={basis}
              focusReason={focusReason}
            />
          )}
          <Ways cause={cause} place={place} basis={basis} after={after} />
        </div>
      )}
      {isFirst && first !== undefined && (
        <div className="no-print px-4 pb-3 pl-13 text-sm">
          <p>{sheet.findings[first]?.clears}</p>
          <Ways cause={cause} place={place} basis={basis} after={after} />
        </div>
      )}
      {/* On paper everything is unfolded. */}
      {!single && <ol className={unfolded ? "pb-2" : "hidden print:block"}>{children}</ol>}
    </li>
  );
}

function CauseActions({
  cause,
  sheet,
  place,
  basis,
  focusReason,
}: {
  cause: Schemas["CauseOut"];
  sheet: Sheet;
  place: WeekPlace;
  basis: Basis;
  focusReason: number;
}) {
  const key = { basis, code: cause.code, subject: cause.subject };
  const accept = useChange((reason: string) => judge.acceptCause(place, { ...key, reason }));
  const reopen = useChange(() => judge.reopenCause(place, key));
  const reasons = new Set(cause.findings.map((at) => sheet.findings[at]?.reason ?? ""));
  const [reason] = reasons;
  return (
    <AcceptForm
      accepted={cause.accepted}
      reason={reasons.size === 1 && reason ? reason : null}
      focusReason={focusReason}
      what="cause"
      accept={(text) => accept.mutate(text)}
      reopen={() => reopen.mutate(undefined)}
      pending={accept.isPending}
      error={accept.error ?? reopen.error}
    />
  );
}

/** What was done otherwise is mended in the log, what was planned in the next week. */
function Ways({
  cause,
  place,
  basis,
  after,
}: {
  cause: Schemas["CauseOut"];
  place: WeekPlace;
  basis: Basis;
  after: string;
}) {
  const logged = basis === "completed" && cause.of_log;
  return (
    <p className="no-print mt-2 flex gap-4">
      {logged && (
        <May right="log">
          <Link className="trail-link" to={weekPath(place.athlete, place.week, "log")}>
            See the log
          </Link>
        </May>
      )}
      <May right="plan">
        <Link
          className="trail-link"
          to={`${weekPath(place.athlete, basis === "planned" ? place.week : after, "dial")}?propose=1`}
        >
          {basis === "planned" ? "Adjust this week" : "Adjust next week"}
        </Link>
      </May>
    </p>
  );
}

/** What is said of a week without a finding. */
function nothingSaid(sheet: Sheet, basis: Basis): string {
  if (sheet.sessions.length === 0) return "No session, so nothing to judge.";
  return sheet.nothing_done && basis === "completed"
    ? "Nothing is done yet, so nothing is judged. Judge the week by what is planned."
    : "Every figure is inside the house rules.";
}
