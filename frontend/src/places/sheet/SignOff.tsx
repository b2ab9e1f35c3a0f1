import { useState } from "react";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { judge } from "@/api/sheet";
import { date, weekName } from "@/words";
import type { Sheet } from "./WeekSheet";

const SIGNER = "dialback.signer";

/** The audit signed by name, or the name to sign it with. */
export function SignOff({ sheet, place, open }: { sheet: Sheet; place: WeekPlace; open: number }) {
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
          <span>
            Signed by <span className="font-semibold">{signature.name}</span>, {date(signature.day)}
          </span>
          <button
            type="button"
            className="no-print trail-link ml-auto"
            onClick={() => unsign.mutate(undefined)}
          >
            Take back
          </button>
        </p>
      ) : (
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
            Sign off {weekName(place.week).toLowerCase()}
            {open > 0 && `, ${open} open`}
          </button>
        </form>
      )}
      {sign.error && (
        <p role="alert" className="text-high">
          {sign.error.message}
        </p>
      )}
      <p className="mt-1.5 text-xs text-ink-2">
        An aid to your judgement: no medical advice, no forecast of injury.
      </p>
    </div>
  );
}
