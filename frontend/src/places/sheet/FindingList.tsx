import { useEffect, useRef, useState } from "react";
import type { Basis } from "@/api/client";
import { type WeekPlace, judge, useChange } from "@/api/queries";
import { KEYS } from "@/frame/keys";
import { LevelMark } from "@/marks/LevelMark";
import { date, weekName } from "@/words";
import type { Finding, Sheet } from "./WeekSheet";

interface Props {
  sheet: Sheet;
  place: WeekPlace;
  basis: Basis;
  selected: number;
  select: (at: number) => void;
  /** Counts up when the reason of the selected finding is to be typed. */
  focusReason: number;
}

/** The findings as a list that can be walked, judged and signed off. */
export function FindingList({ sheet, place, basis, selected, select, focusReason }: Props) {
  const open = sheet.findings.filter((one) => !one.accepted).length;
  return (
    <section aria-label="Findings" className="flex min-h-0 flex-1 basis-1/2 flex-col print-open print:flex-none">
      <h2 className="flex items-baseline gap-2 border-b border-rule px-4 pt-3 pb-1.5 font-semibold">
        {open === 0 ? "Nothing open" : `${open} open finding${open === 1 ? "" : "s"}`}
        {sheet.findings.length > open && (
          <span className="text-sm font-normal text-ink-2">{sheet.findings.length - open} accepted</span>
        )}
        {sheet.findings.length > 0 && (
          <span className="no-print ml-auto text-sm font-normal text-ink-2">
            walk with <kbd className="font-mono text-2xs">{KEYS.nextFinding.key}</kbd>{" "}
            <kbd className="font-mono text-2xs">{KEYS.previousFinding.key}</kbd>
          </span>
        )}
      </h2>
      <ol className="min-h-0 flex-1 overflow-auto print-open print:flex-none">
        {sheet.findings.map((one, at) => (
          <FindingItem
            key={`${one.code}/${one.subject}/${one.measure}`}
            finding={one} place={place} basis={basis} on={at === selected}
            select={() => select(at)} focusReason={at === selected ? focusReason : 0}
          />
        ))}
        {sheet.findings.length === 0 && (
          <li className="px-4 py-4 text-ink-2">
            {sheet.sessions.length === 0
              ? "No session, so nothing to judge."
              : "Every figure is inside the house rules."}
          </li>
        )}
      </ol>
      {basis === "completed" && <SignOff sheet={sheet} place={place} open={open} />}
    </section>
  );
}

function FindingItem({ finding, place, basis, on, select, focusReason }: {
  finding: Finding;
  place: WeekPlace;
  basis: Basis;
  on: boolean;
  select: () => void;
  focusReason: number;
}) {
  const item = useRef<HTMLLIElement>(null);
  const reasonField = useRef<HTMLInputElement>(null);
  const [reason, setReason] = useState("");
  const key = { basis, code: finding.code, subject: finding.subject, measure: finding.measure };
  const accept = useChange(() => judge.accept(place, { ...key, reason }));
  const reopen = useChange(() => judge.reopen(place, key));
  useEffect(() => {
    if (on) item.current?.scrollIntoView({ block: "nearest" });
  }, [on]);
  useEffect(() => {
    if (focusReason > 0) reasonField.current?.focus();
  }, [focusReason]);
  return (
    <li ref={item} className={`border-b border-hair ${on ? "bg-sheet" : ""}`}>
      <button type="button" onClick={select} aria-expanded={on} className="flex w-full gap-3 px-4 py-2 text-left hover:bg-sheet">
        <span className="pt-1"><LevelMark level={finding.level} struck={finding.accepted} /></span>
        <span className={`min-w-0 text-sm ${finding.accepted ? "text-ink-2" : ""}`}>
          <span className="block">
            <span className={`font-semibold ${finding.accepted ? "line-through" : ""}`}>{finding.title}</span>
            <span className="text-ink-2"> · {finding.level} · {finding.label === "total" ? "the week" : finding.label}</span>
          </span>
          {finding.sentence}
        </span>
      </button>
      {on && (
        <div className="px-4 pb-3 pl-[3.25rem] text-sm">
          <p className="mb-2">{finding.clears}</p>
          {finding.accepted ? (
            <p className="flex items-baseline gap-3">
              <span className="text-ink-2 italic">Accepted: {finding.reason}</span>
              <button type="button" className="key-button" onClick={() => reopen.mutate(undefined)}>Open again</button>
            </p>
          ) : (
            <form
              className="no-print flex gap-2"
              onSubmit={(event) => { event.preventDefault(); if (reason.trim()) accept.mutate(undefined); }}
            >
              <input
                ref={reasonField} value={reason} onChange={(event) => setReason(event.target.value)}
                onKeyDown={(event) => event.key === "Escape" && event.currentTarget.blur()}
                placeholder={finding.reason ? `Grew since: ${finding.reason}` : "Reason"} aria-label="Reason to accept the finding"
                maxLength={500} className="field min-w-0 flex-1"
              />
              <button type="submit" disabled={!reason.trim() || accept.isPending} className="key-button">Accept</button>
            </form>
          )}
          {(accept.error ?? reopen.error) && <p role="alert" className="mt-1 text-high">{(accept.error ?? reopen.error)?.message}</p>}
        </div>
      )}
    </li>
  );
}

const SIGNER = "dialback.signer";

function SignOff({ sheet, place, open }: { sheet: Sheet; place: WeekPlace; open: number }) {
  const [name, setName] = useState(() => localStorage.getItem(SIGNER) ?? "");
  const sign = useChange(async () => {
    localStorage.setItem(SIGNER, name.trim());
    return judge.sign(place, name);
  });
  const unsign = useChange(() => judge.unsign(place));
  const signature = sheet.signature;
  return (
    <div className="border-t border-rule px-4 py-2.5 text-sm">
      {signature ? (
        <p className="flex items-baseline gap-3">
          <span>Signed by <span className="font-semibold">{signature.name}</span>, {date(signature.day)}</span>
          <button type="button" className="no-print trail-link ml-auto" onClick={() => unsign.mutate(undefined)}>Take back</button>
        </p>
      ) : (
        <form
          className="no-print flex items-baseline gap-2"
          onSubmit={(event) => { event.preventDefault(); if (name.trim()) sign.mutate(undefined); }}
        >
          <input
            value={name} onChange={(event) => setName(event.target.value)} placeholder="Your name"
            aria-label="Name to sign with" maxLength={120} className="field min-w-0 flex-1"
          />
          <button type="submit" disabled={!name.trim() || sign.isPending} className="ink-button whitespace-nowrap">
            Sign off {weekName(place.week).toLowerCase()}{open > 0 && `, ${open} open`}
          </button>
        </form>
      )}
      {sign.error && <p role="alert" className="text-high">{sign.error.message}</p>}
      <p className="mt-1.5 text-xs text-ink-2">
        An aid to your judgement: no medical advice, no forecast of injury.
      </p>
    </div>
  );
}
