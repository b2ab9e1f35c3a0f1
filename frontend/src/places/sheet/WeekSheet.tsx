import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Basis, Schemas } from "@/api/client";
import { useFrame, useSheet } from "@/api/sheet";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { KEYS, useKeys } from "@/frame/keys";
import { BASIS_WORDS, day, weekName } from "@/words";
import { Ledger } from "./Ledger";
import { SchoolsDialog } from "./SchoolsDialog";
import { Trail } from "./Trail";
import { Verdict } from "./Verdict";
import { type Stop, causeKey, keyOf, step, stopsOf } from "./walk-verdict";

export type Sheet = Schemas["Sheet"];
export type Finding = Schemas["FindingOut"];

/** What is open beside the sheet: figures with their basis, and days if only some are meant. */
export interface OpenTrail {
  figures: string[];
  basis: Basis;
  days: string;
}

const BASELINES: Record<string, string> = {
  mean_4: "mean of ",
  last_week: "",
  ewma: "weighted mean of ",
};

/** The audit of a week; the address holds basis, trail and finding, so that a link opens it. */
export function WeekSheet() {
  const place = useWeekPlace();
  const [params, setParams] = useSearchParams();
  // A week that still runs is judged by its plan, until somebody asks otherwise.
  const frame = useFrame(place);
  const usual: Basis = frame.data && !frame.data.over ? "planned" : "completed";
  const asked = params.get("basis");
  const basis: Basis = asked === "planned" || asked === "completed" ? asked : usual;
  const sheet = useSheet(place, basis, frame.isSuccess);
  const [focusReason, setFocusReason] = useState(0);

  const change = (entries: Record<string, string | string[] | null>) =>
    setParams(
      (now) => {
        const next = new URLSearchParams(now);
        for (const [name, value] of Object.entries(entries)) {
          next.delete(name);
          for (const one of value === null ? [] : [value].flat()) next.append(name, one);
        }
        return next;
      },
      { replace: true },
    );

  const findings = sheet.data?.findings ?? [];
  const causes = sheet.data?.causes ?? [];
  const selected = findings.findIndex((one) => keyOf(one) === params.get("finding"));
  const caused = causes.findIndex((one) => one.findings.includes(selected));
  const chosen = causes.findIndex((one) => causeKey(one) === params.get("cause"));
  const now: Stop =
    selected >= 0
      ? {
          cause: caused >= 0 && (causes[caused]?.findings.length ?? 0) > 1 ? caused : null,
          finding: selected,
        }
      : { cause: chosen >= 0 ? chosen : null, finding: null };
  // A cause stays unfolded while one is inside it.
  const unfolded =
    now.finding !== null ? now.cause : params.get("unfolded") && chosen >= 0 ? chosen : null;
  /** A finding with its trail; a cause that has but one finding shows that one's. */
  const go = (stop: Stop, open = false) => {
    const cause = stop.cause === null ? undefined : causes[stop.cause];
    const only = cause?.findings.length === 1 ? cause.findings[0] : undefined;
    const one = findings[stop.finding ?? only ?? -1];
    change({
      cause: stop.finding === null && cause ? causeKey(cause) : null,
      finding: stop.finding !== null && one ? keyOf(one) : null,
      unfolded: open ? "1" : null,
      trail: one?.figures ?? null,
      of: one && (basis === "planned" || one.of_plan) ? "planned" : null,
      days: one?.days.length ? one.days.join(",") : null,
    });
    if (one)
      document
        .querySelector(`[data-row="${CSS.escape(rowOf(one))}"]`)
        ?.scrollIntoView({ block: "nearest" });
  };
  const toggle = (at: number) => {
    const cause = causes[at];
    if (cause)
      change({
        cause: causeKey(cause),
        finding: null,
        unfolded: unfolded === at ? null : "1",
        trail: null,
        of: null,
        days: null,
      });
  };
  const walk = (by: 1 | -1) => {
    const next = sheet.data && step(stopsOf(sheet.data, unfolded), now, by);
    // Unfolded stays unfolded as long as one is at it.
    if (next) go(next, next.finding === null && next.cause === unfolded);
  };
  const openFinding = (at: number) => {
    const cause = causes.findIndex((one) => one.findings.includes(at));
    const alone = cause >= 0 && causes[cause]?.findings.length === 1;
    go(alone ? { cause, finding: null } : { cause: cause >= 0 ? cause : null, finding: at });
  };
  const open: OpenTrail = {
    figures: params.getAll("trail"),
    basis: params.get("of") === "planned" ? "planned" : "completed",
    days: params.get("days") ?? "",
  };
  const openFigure = (figure: string, of: Basis) =>
    change({ trail: figure, of: of === "planned" ? "planned" : null, days: null, finding: null });
  const close = () => change({ trail: null, of: null, days: null, finding: null, unfolded: null });
  const swap = () =>
    change({
      basis: basis === "completed" ? "planned" : "completed",
      finding: null,
      cause: null,
      unfolded: null,
    });

  useKeys({
    basis: swap,
    nextFinding: () => walk(1),
    previousFinding: () => walk(-1),
    unfold: () => {
      if (now.cause !== null) toggle(now.cause);
    },
    closeTrail: close,
    accept: () => {
      if (now.finding !== null || now.cause !== null) setFocusReason((count) => count + 1);
    },
  });

  if (sheet.error) return <Failure error={sheet.error} />;
  if (!sheet.data) return <p className="p-6 text-ink-2">Counting the week…</p>;
  const data = sheet.data;
  const nothing = data.sessions.length === 0;
  const only = now.cause === null ? undefined : causes[now.cause]?.findings;
  const shown = findings[now.finding ?? (only?.length === 1 ? (only[0] ?? -1) : -1)];
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_25.5rem]">
      <main
        className="min-h-0 overflow-auto bg-sheet px-6 pt-3 pb-10 print-open print:pb-0"
        tabIndex={-1}
      >
        <div className="flex items-baseline gap-5 pb-1">
          <fieldset className="no-print flex items-baseline gap-1">
            <legend className="sr-only">Judge what was</legend>
            <span className="mr-1 text-sm text-ink-2 italic">Judged:</span>
            {(["completed", "planned"] as const).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={one === basis}
                onClick={() => one !== basis && swap()}
                title={`Key ${KEYS.basis.key}`}
                className={`border px-2.5 text-sm ${one === basis ? "border-ink bg-ink text-sheet" : "border-rule text-ink-2 hover:text-ink"}`}
              >
                {BASIS_WORDS[one]}
              </button>
            ))}
          </fieldset>
          <p className="text-sm text-ink-2">
            {data.sessions_done} of {data.sessions_planned} planned sessions done. Baseline:{" "}
            {data.baseline_weeks.length
              ? (BASELINES[data.baseline] ?? "") + summary(data.baseline_weeks)
              : "none, no trained week before this one"}
            .
          </p>
          <SchoolsDialog place={place} basis={basis} />
        </div>
        <ol className="flex flex-wrap gap-x-5 pb-2 text-sm">
          {data.sessions.map((one) => (
            <li key={one.date + one.title} className="flex items-baseline gap-1.5">
              <span
                aria-hidden="true"
                className={`inline-block size-2.5 self-center border border-ink ${one.done ? "bg-ink" : ""}`}
              />
              <span className={one.done ? "" : "text-ink-2"}>
                {day(one.date)} {one.title}
                {!one.planned && ", not planned"}
                {one.planned && !one.done && (one.ahead ? ", ahead" : ", not done")}
              </span>
            </li>
          ))}
        </ol>
        {data.sessions.some((one) => one.differed.length > 0) && (
          <details
            className="mb-2 text-sm"
            open={data.sessions.flatMap((one) => one.differed).length <= SHOWN}
          >
            <summary className="text-ink-2">Otherwise than planned</summary>
            <ul className="columns-2 gap-8 print:columns-1">
              {data.sessions
                .filter((one) => one.differed.length > 0)
                .map((one) => (
                  <li key={one.date + one.title} className="break-inside-avoid">
                    <span className="text-ink-2">{day(one.date)}:</span>{" "}
                    {one.differed.slice(0, SHOWN).join("; ")}
                    {one.differed.length > SHOWN && `; and ${one.differed.length - SHOWN} more`}.
                  </li>
                ))}
            </ul>
          </details>
        )}
        {data.disagreement && (
          <p className="mb-2 border-l-4 border-rule pl-3 text-sm">{data.disagreement}</p>
        )}
        {nothing ? (
          <p className="max-w-prose py-8">
            Nothing is planned or logged in this week. Go back a week with{" "}
            <kbd className="font-mono text-xs">[</kbd>, or draft its plan on the Dial with{" "}
            <kbd className="font-mono text-xs">d</kbd>.
          </p>
        ) : (
          <Ledger
            sheet={data}
            selected={shown ? rowOf(shown) : null}
            openFigure={openFigure}
            openFinding={openFinding}
          />
        )}
      </main>
      <aside className="flex min-h-0 flex-col border-l border-rule print-open">
        <Verdict
          sheet={data}
          place={place}
          name={frame.data?.athlete.name ?? "this athlete"}
          basis={basis}
          now={now}
          unfolded={unfolded}
          go={go}
          toggle={toggle}
          after={frame.data?.after ?? place.week}
          focusReason={focusReason}
        />
        {open.figures.length > 0 && (
          <Trail place={place} open={open} close={close} openFigure={openFigure} />
        )}
      </aside>
    </div>
  );
}

/** So many differences are shown at once; the log has all of them. */
const SHOWN = 6;

/** The row at whose margin a finding stands. */
export const rowOf = (one: Pick<Finding, "code" | "subject" | "measure">): string =>
  one.subject === "total" ? one.measure : one.subject;

function summary(weeks: string[]): string {
  if (weeks.length > 5) return `${weeks.length} weeks from ${weekName(weeks[0] ?? "")}`;
  return weeks.map((week) => weekName(week).replace("Week ", "W")).join(", ");
}
