import { useState } from "react";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { useMay, useMe } from "@/api/me";
import { onDevice } from "@/api/remember";
import { judge, reportPath, signedPath } from "@/api/sheet";
import { May } from "@/frame/May";
import { date, weekName } from "@/words";
import type { Sheet } from "./open";

type Signature = NonNullable<Sheet["signature"]>;

/** Who signed, when, and what is no longer as it was then. */
function Signed({
  signature,
  place,
  takeBack,
}: {
  signature: Signature;
  place: WeekPlace;
  takeBack: () => void;
}) {
  const changed = signature.since.length > 0;
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="whitespace-nowrap">
          Signed by <span className="font-semibold">{signature.name}</span>, {date(signature.day)}
        </span>
        <span className="no-print ml-auto flex gap-3 whitespace-nowrap">
          {signature.kept && (
            <a className="trail-link" href={signedPath(place)} download>
              As signed
            </a>
          )}
          <May right="plan">
            <button type="button" className="trail-link" onClick={takeBack}>
              Withdraw
            </button>
          </May>
        </span>
      </p>
      {changed && (
        <p role="status" className="mb-2 border-l-4 border-caution pl-2">
          Since then: {signature.since.join("; ")}. What was signed is kept as it was.
        </p>
      )}
    </>
  );
}

/** Pages to print, each opened as a PDF beside the sheet. */
const PAPERS = [
  { says: "Report", of: "week", reader: "coach" },
  { says: "Hand-out", of: "week", reader: "athlete" },
  { says: "Block report", of: "block", reader: "coach" },
  { says: "Block hand-out", of: "block", reader: "athlete" },
] as const;

const SIGNER = "dialback.signer";

interface Props {
  sheet: Sheet;
  place: WeekPlace;
  /** The week after it. */
  after: string;
  /** So many findings are open. */
  open: number;
}

/** The audit signed by name, or the name to sign it with. */
export function SignOff({ sheet, place, after, open }: Props) {
  const me = useMe().data?.name;
  const may = useMay("plan");
  const [typed, setName] = useState(() => onDevice.get(SIGNER));
  // Whoever is signed in signs, unless somebody else has signed here before.
  const name = typed ?? me ?? "";
  const sign = useChange(async () => {
    onDevice.set(SIGNER, name.trim());
    return judge.sign(place, name);
  });
  const unsign = useChange(() => judge.unsign(place));
  const signature = sheet.signature;
  return (
    <>
      {/* Under the thumb on a phone, as long as the verdict is read. */}
      <div className="border-t border-rule px-4 pt-2.5 pb-1 text-sm max-md:not-print:sticky max-md:not-print:bottom-0 max-md:not-print:bg-paper max-md:not-print:pb-2.5">
        {signature && (
          <Signed signature={signature} place={place} takeBack={() => unsign.mutate(undefined)} />
        )}
        {may && !sheet.nothing_done && (!signature || signature.since.length > 0) && (
          <form
            className="no-print flex items-baseline gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim()) sign.mutate(undefined);
            }}
          >
            <input
              value={name}
              onChange={(event) => setName(event.target.value)}
              placeholder="Your name"
              aria-label="Name to sign with"
              maxLength={120}
              className="field min-w-0 flex-1"
            />
            <button
              type="submit"
              disabled={!name.trim() || sign.isPending}
              className="ink-button whitespace-nowrap"
            >
              {signature ? "Sign again" : `Sign off ${weekName(place.week).toLowerCase()}`}
              {open > 0 && `, ${open} open`}
            </button>
          </form>
        )}
        {sign.error && (
          <p role="alert" className="text-high">
            {sign.error.message}
          </p>
        )}
      </div>
      <div className="px-4 pb-2.5 text-sm">
        <p className="no-print mt-1 flex flex-wrap gap-x-4">
          <span className="text-ink-2">To print:</span>
          {PAPERS.filter((one) => one.of === "week" || sheet.in_block).map((one) => (
            <a
              key={one.says}
              className="trail-link inline-block min-h-6"
              href={reportPath(place, one.of, one.reader)}
              target="_blank"
              rel="noreferrer"
            >
              {one.says}
              {/* It is about the week to come, whichever is being judged. */}
              {one.of === "week" &&
                one.reader === "athlete" &&
                `, ${weekName(after).toLowerCase()}`}
            </a>
          ))}
        </p>
        <p className="mt-1.5 text-xs text-ink-2">
          An aid to your judgement: no medical advice, no forecast of injury.
        </p>
      </div>
    </>
  );
}
