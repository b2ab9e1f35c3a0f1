import { useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { DialogSheet } from "@/frame/DialogSheet";
import { LevelMark } from "@/marks/LevelMark";
import { weekName } from "@/words";

interface Props {
  open: boolean;
  week: string;
  audit: Schemas["DraftAudit"];
  close: () => void;
  publish: () => Promise<void>;
}

/** The last look before a draft becomes the plan: what stays open, and the cautions. */
export function PublishDialog({ open, week, audit, close, publish }: Props) {
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const high = audit.findings.filter((one) => one.level === "high");
  const shown = high.length > 0 ? high : audit.findings;
  return (
    <DialogSheet
      open={open}
      close={close}
      title={`Publish as the plan of ${weekName(week).toLowerCase()}?`}
    >
      <p className="mt-2">
        {audit.findings.length === 0
          ? "Every figure of the draft is inside the house rules."
          : `${audit.findings.length} findings stay open${high.length ? `, ${high.length} of them high` : ""}. Are they meant?`}
      </p>
      <ul className="mt-2 max-h-52 overflow-auto text-sm">
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
          disabled={busy}
          onClick={async () => {
            setBusy(true);
            try {
              await publish();
            } catch (problem) {
              setError(messageOf(problem));
              setBusy(false);
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
