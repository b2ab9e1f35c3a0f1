import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { decisions } from "@/api/decisions";
import { useMay } from "@/api/me";
import { type WeekPlace } from "@/api/place";
import { DialogSheet } from "./DialogSheet";
import { weekPath } from "./places";
import { useTyped } from "./useTyped";

type Hurt = Schemas["HurtOut"];

interface Props {
  place: WeekPlace;
  hurts: Hurt[];
}

/** What hurt and nobody has looked at yet: in the head of every place until somebody has. */
export function Hurting({ place, hurts }: Props) {
  const may = useMay("plan");
  const [looking, setLooking] = useState<Hurt | null>(null);
  if (hurts.length === 0) return null;
  return (
    <ul
      aria-label="What hurt"
      className="border-b border-rule bg-sheet px-6 py-1 text-sm max-md:px-4"
    >
      {hurts.map((one) => (
        <li key={one.words} className="border-l-4 border-high pl-2 text-high">
          {one.words}
          {may && (
            <button
              type="button"
              className="trail-link no-print ml-3 min-h-6"
              onClick={() => setLooking(one)}
            >
              What follows?
            </button>
          )}
        </li>
      ))}
      {looking && <Look place={place} hurt={looking} close={() => setLooking(null)} />}
    </ul>
  );
}

const FOLLOWS = {
  restrict: "A restriction on a movement or a muscle",
  care: "A care note",
  seen: "Nothing more",
} as const;
type Follows = keyof typeof FOLLOWS;

/** Somebody looks at what hurt, and says what follows. */
function Look({ place, hurt, close }: { place: WeekPlace; hurt: Hurt; close: () => void }) {
  const go = useNavigate();
  const [follows, setFollows] = useState<Follows | null>(null);
  const [word, setWord] = useTyped(`of what hurt on ${hurt.day}`);
  const see = useChange(async (chosen: Follows) => {
    await decisions.seePain(place.athlete, {
      day: hurt.day,
      movement: hurt.movement,
      follows: [FOLLOWS[chosen], word.trim()].filter(Boolean).join(". "),
    });
    close();
    if (chosen !== "seen") void go(weekPath(place.athlete, place.week, "rules"));
  });
  return (
    <DialogSheet open close={close} title={hurt.words}>
      <p className="text-ink">
        Whether to keep training with it is for a doctor or physiotherapist to decide. Until
        somebody has looked at it, this stays at the top of every page for this athlete.
      </p>
      <fieldset className="mt-3 text-ink">
        <legend className="font-semibold">What follows</legend>
        {(Object.keys(FOLLOWS) as Follows[]).map((one) => (
          <label key={one} className="flex min-h-9 items-center gap-2">
            <input
              type="radio"
              name="follows"
              checked={follows === one}
              onChange={() => setFollows(one)}
              className="accent-ink"
            />
            {FOLLOWS[one]}
          </label>
        ))}
      </fieldset>
      <label className="mt-2 block text-ink">
        A note, and on whose advice
        <input
          value={word}
          maxLength={400}
          onChange={(event) => setWord(event.target.value)}
          className="field mt-0.5 block w-full"
        />
      </label>
      {see.error && (
        <p role="alert" className="mt-2 text-high">
          {see.error.message}
        </p>
      )}
      <div className="mt-4 flex gap-3">
        <button
          type="button"
          className="ink-button"
          disabled={follows === null || see.isPending}
          onClick={() => follows && see.mutate(follows)}
        >
          Mark as looked at
        </button>
        <button type="button" className="key-button" onClick={close}>
          Cancel
        </button>
      </div>
    </DialogSheet>
  );
}
