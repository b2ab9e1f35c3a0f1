import type { SetURLSearchParams } from "react-router";
import type { Basis } from "@/api/client";
import { type Sheet, rowOf } from "./open";
import { type Stop, causeKey, keyOf, step, stopsOf } from "./walk-verdict";

/** Put some entries of the address otherwise, without a step in the history. */
export const changing =
  (setParams: SetURLSearchParams) => (entries: Record<string, string | string[] | null>) =>
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

/** Where one is in the verdict, and the ways to go on: the address holds it, so a link opens it. */
export function useWalk(
  sheet: Sheet | undefined,
  basis: Basis,
  params: URLSearchParams,
  setParams: SetURLSearchParams,
) {
  const change = changing(setParams);
  const findings = sheet?.findings ?? [];
  const causes = sheet?.causes ?? [];
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
    const next = sheet && step(stopsOf(sheet, unfolded), now, by);
    // Unfolded stays unfolded as long as one is at it.
    if (next) go(next, next.finding === null && next.cause === unfolded);
  };
  const openFinding = (at: number) => {
    const cause = causes.findIndex((one) => one.findings.includes(at));
    const alone = cause >= 0 && causes[cause]?.findings.length === 1;
    go(alone ? { cause, finding: null } : { cause: cause >= 0 ? cause : null, finding: at });
  };
  const only = now.cause === null ? undefined : causes[now.cause]?.findings;
  const shown = findings[now.finding ?? (only?.length === 1 ? (only[0] ?? -1) : -1)];
  return { now, unfolded, shown, go, toggle, walk, openFinding };
}
