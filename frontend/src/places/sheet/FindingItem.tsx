import { useEffect, useRef } from "react";
import type { Basis } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { judge } from "@/api/sheet";
import { LevelMark } from "@/marks/LevelMark";
import { AcceptForm } from "./AcceptForm";
import type { Finding } from "./open";

interface Props {
  finding: Finding;
  /** How many of the schools raise it, in words. */
  schools: string | null;
  place: WeekPlace;
  basis: Basis;
  on: boolean;
  /** Whether it stands under a cause. */
  under: boolean;
  select: () => void;
  focusReason: number;
}

/** A finding in the list: its words, and, when it is chosen, what would clear it. */
export function FindingItem({
  finding,
  schools,
  place,
  basis,
  on,
  under,
  select,
  focusReason,
}: Props) {
  const item = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (on) item.current?.scrollIntoView({ block: "nearest" });
  }, [on]);
  return (
    <li ref={item} className={`${under ? "" : "border-b border-hair"} ${on ? "bg-sheet" : ""}`}>
      <button
        type="button"
        onClick={select}
        aria-expanded={on}
        className={`flex w-full gap-3 py-1.5 pr-4 text-left hover:bg-sheet ${under ? "pl-8" : "pl-4"}`}
      >
        <span className="pt-1">
          <LevelMark level={finding.level} struck={finding.accepted} />
        </span>
        <span className={`min-w-0 text-sm ${finding.accepted ? "text-ink-2" : ""}`}>
          <span className="block">
            <span className={`font-semibold ${finding.accepted ? "line-through" : ""}`}>
              {finding.title}
            </span>
            <span className="text-ink-2">
              {" "}
              · {finding.level} · {finding.label}
              {schools && <span className="whitespace-nowrap"> · {schools}</span>}
            </span>
          </span>
          {finding.sentence}
        </span>
      </button>
      {on && (
        <div className={`pr-4 pb-3 text-sm ${under ? "pl-17" : "pl-13"}`}>
          <FindingActions finding={finding} place={place} basis={basis} focusReason={focusReason} />
        </div>
      )}
    </li>
  );
}

/** What would clear a finding, and the coach's judgement of it. */
export function FindingActions({
  finding,
  place,
  basis,
  focusReason,
}: Pick<Props, "finding" | "place" | "basis" | "focusReason">) {
  const key = { basis, code: finding.code, subject: finding.subject, measure: finding.measure };
  const accept = useChange((reason: string) => judge.accept(place, { ...key, reason }));
  const reopen = useChange(() => judge.reopen(place, key));
  return (
    <>
      <p className="mb-2">{finding.clears}</p>
      <AcceptForm
        accepted={finding.accepted}
        reason={finding.reason}
        focusReason={focusReason}
        what="finding"
        accept={(reason) => accept.mutate(reason)}
        reopen={() => reopen.mutate(undefined)}
        pending={accept.isPending}
        error={accept.error ?? reopen.error}
      />
    </>
  );
}
