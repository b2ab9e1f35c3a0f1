import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { rules } from "@/api/rules";
import { judge } from "@/api/sheet";
import { count } from "@/words";

interface Props {
  offer: Schemas["OfferOut"];
  place: WeekPlace;
  name: string;
}

/** The rule that would stop what was accepted so often: offered once, quietly. */
export function Offer({ offer, place, name }: Props) {
  const take = useChange(() =>
    rules.save(place.athlete, { chosen: offer.chosen, revision: offer.revision }),
  );
  const decline = useChange(() =>
    judge.declineOffer(place, {
      code: offer.code,
      subject: offer.subject,
      measure: offer.measure,
    }),
  );
  const effect = [
    offer.cleared > 0 && `${count(offer.cleared, "finding")} of this week would go`,
    offer.appeared > 0 && `${count(offer.appeared, "finding")} would come`,
  ]
    .filter(Boolean)
    .join(", ");
  const failed = take.error ?? decline.error;
  return (
    <div role="note" className="no-print border-b border-hair bg-band/40 px-4 py-2 text-sm">
      <p>
        Accepted {offer.times} times as “{offer.reason}”: {offer.words} for {name}?
        <span className="text-ink-2"> {effect || "Nothing else changes in this week"}.</span>
      </p>
      {failed && (
        <p role="alert" className="text-high">
          {failed.message}
        </p>
      )}
      <p className="mt-1 flex gap-3">
        <button
          type="button"
          className="key-button"
          disabled={take.isPending}
          onClick={() => take.mutate(undefined)}
        >
          Change the rule
        </button>
        <button
          type="button"
          className="trail-link"
          disabled={decline.isPending}
          onClick={() => decline.mutate(undefined)}
        >
          No, and do not ask again
        </button>
      </p>
    </div>
  );
}
