import { useEffect, useState } from "react";
import { Refusal, type Schemas, messageOf } from "@/api/client";
import { dial } from "@/api/dial";
import type { WeekPlace } from "@/api/place";
import { DialogSheet } from "@/frame/DialogSheet";
import { LevelMark } from "@/marks/LevelMark";
import { count, day, weekName } from "@/words";
import type { Sessions } from "./draft";

interface Props {
  open: boolean;
  place: WeekPlace;
  sessions: Sessions;
  audit: Schemas["DraftAudit"];
  close: () => void;
  /** Publish; `logged` are the days that stay as they are, as they were shown. */
  publish: (logged: string[]) => Promise<void>;
}

type DayChange = Schemas["DayChangeOut"];

/** The last look before a draft becomes the plan: what changes, what stays open, the cautions. */
export function PublishDialog({ open, place, sessions, audit, close, publish }: Props) {
  const { week } = place;
  const [error, setError] = useState<string | null>(null);
  const [asked, setAsked] = useState(0);
  const days = useDayChanges(place, sessions, open, asked);
  const [busy, setBusy] = useState(false);
  const high = audit.findings.filter((one) => one.level === "high");
  const shown = high.length > 0 ? high : audit.findings;
  return (
    <DialogSheet
      open={open}
      close={close}
      title={`Publish as the plan of ${weekName(week).toLowerCase()}?`}
    >
      <DayChanges days={days} />
      <p className="mt-3">
        {audit.findings.length === 0
          ? "Every figure of the draft is inside the house rules."
          : `${audit.findings.length} findings stay open${high.length ? `, ${high.length} of them high` : ""}. Is that what you want?`}
      </p>
      <ul className="mt-2 max-h-40 overflow-auto text-sm">
        {shown.slice(0, 8).map((one) => (
          <li
            key={`${one.code}/${one.subject}/${one.measure}`}
            className="flex gap-2 border-b border-hair py-1"
          >
            <span className="pt-0.5">
              <LevelMark level={one.level} />
            </span>
            {one.sentence}
          </li>
        ))}
      </ul>
      <p className="mt-3 text-xs text-ink-2">
        Form before load. Heavy bar work needs a spotter or safeties. A return from a break starts
        low. Stop on sharp pain, chest pain, dizziness or numbness, and see a doctor. Pain, injury,
        illness, pregnancy and training of minors need a licensed practitioner&rsquo;s judgement and
        follow local law and the facility&rsquo;s rules.
      </p>
      {error && (
        <p role="alert" className="mt-2 text-high">
          {error}
        </p>
      )}
      <div className="mt-4 flex gap-3">
        <button
          type="button"
          className="ink-button"
          disabled={busy || days === null}
          onClick={async () => {
            setBusy(true);
            try {
              await publish((days ?? []).filter(isLogged).map((one) => one.date));
            } catch (problem) {
              setError(messageOf(problem));
              setBusy(false);
              // Somebody has logged meanwhile: what changes now is shown.
              if (problem instanceof Refusal) setAsked((times) => times + 1);
            }
          }}
        >
          Publish
        </button>
        <button type="button" className="key-button" onClick={close}>
          Back to the draft
        </button>
      </div>
    </DialogSheet>
  );
}

const isLogged = (one: DayChange) => one.kind === "logged";

/** What publishing changes, asked for whenever the dialog opens. */
function useDayChanges(place: WeekPlace, sessions: Sessions, open: boolean, asked: number) {
  const [days, setDays] = useState<DayChange[] | null>(null);
  useEffect(() => {
    if (!open) return undefined;
    const control = new AbortController();
    dial
      .changes(place, sessions, control.signal)
      .then((answer) => setDays(answer.days))
      .catch(() => undefined);
    return () => control.abort();
  }, [place, sessions, open, asked]);
  return days;
}

const SAYS: Record<DayChange["kind"], string> = {
  new: "new",
  gone: "goes",
  changed: "",
  same: "stays as it is",
  logged: "logged: stays as it was planned",
};

/** What becomes of each day, line by line. */
function DayChanges({ days }: { days: DayChange[] | null }) {
  if (!days) return <p className="mt-2 text-sm text-ink-2">Comparing with the plan…</p>;
  const changed = days.filter((one) => one.kind !== "same" && one.kind !== "logged");
  return (
    <section aria-label="What changes" className="mt-2 text-sm">
      <p className="font-semibold">
        {changed.length === 0
          ? "Nothing changes: the plan is as the draft has it."
          : `${count(changed.length, "day")} of the plan will change`}
      </p>
      <ul className="max-h-52 overflow-auto">
        {days.map((one) => (
          <li key={one.date} className="border-b border-hair py-1">
            <span className={isLogged(one) || one.kind === "same" ? "text-ink-2" : "font-semibold"}>
              {day(one.date)} {one.title}
            </span>{" "}
            <span className="text-ink-2 italic">{SAYS[one.kind]}</span>
            {one.lines.map((line) => (
              <span key={line} className="block pl-4">
                {line}
              </span>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
