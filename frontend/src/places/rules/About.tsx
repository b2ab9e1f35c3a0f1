import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { people } from "@/api/roster";
import { useFrame } from "@/api/sheet";
import { keptWeight, typedWeight, weightUnit } from "@/words";

/** Name, body weight and note of an athlete. */
export function About({ place }: { place: WeekPlace }) {
  const frame = useFrame(place);
  const athlete = frame.data?.athlete;
  if (!athlete || athlete.id !== place.athlete) return null;
  return <Fields key={JSON.stringify(athlete)} athlete={athlete} />;
}

interface Props {
  athlete: Schemas["AthleteOut"];
}

function Fields({ athlete }: Props) {
  const [name, setName] = useState(athlete.name);
  const [bodyweight, setBodyweight] = useState(
    athlete.bodyweight_kg === null ? "" : String(typedWeight(athlete.bodyweight_kg)),
  );
  const [note, setNote] = useState(athlete.note);
  const [squad, setSquad] = useState(athlete.squad);
  const kg = bodyweight.trim() ? keptWeight(Number(bodyweight.replace(",", "."))) : null;
  const save = useChange(() =>
    people.describe(athlete.id, { name: name.trim(), bodyweight_kg: kg, note, squad }),
  );
  const changed =
    name.trim() !== athlete.name ||
    kg !== athlete.bodyweight_kg ||
    note !== athlete.note ||
    squad.trim() !== athlete.squad;
  const wrong =
    name.trim() === ""
      ? "An athlete has a name."
      : kg !== null && !Number.isFinite(kg)
        ? "A body weight is a number, as in 62.5; leave it empty if it is not known."
        : null;
  return (
    <section aria-labelledby="about" className="mb-7 max-w-3xl">
      <div className="flex items-baseline gap-4 border-b border-rule pb-1">
        <h2 id="about" className="text-xl font-semibold">
          The athlete
        </h2>
        <p className="text-sm text-ink-2">
          Body weight enters the volume load of press-ups, pull-ups and the like.
        </p>
      </div>
      <form
        className="mt-2 flex flex-wrap items-end gap-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (changed && !wrong) save.mutate(undefined);
        }}
      >
        <label>
          <span className="block text-ink-2">Name</span>
          <input
            className="field w-48"
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label>
          <span className="block text-ink-2">Body weight, {weightUnit()}</span>
          <input
            className="field w-28"
            inputMode="decimal"
            value={bodyweight}
            onChange={(event) => setBodyweight(event.target.value)}
          />
        </label>
        <label>
          <span className="block text-ink-2">Squad</span>
          <input
            className="field w-32"
            maxLength={60}
            value={squad}
            onChange={(event) => setSquad(event.target.value)}
          />
        </label>
        <label className="min-w-48 flex-1">
          <span className="block text-ink-2">Note</span>
          <input
            className="field w-full"
            maxLength={500}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        <button
          type="submit"
          className="key-button"
          disabled={!changed || wrong !== null || save.isPending}
        >
          Save
        </button>
      </form>
      {(wrong ?? save.error) && (
        <p role="alert" className="mt-1 text-sm text-high">
          {wrong ?? save.error?.message}
        </p>
      )}
    </section>
  );
}
