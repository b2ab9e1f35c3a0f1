import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { people } from "@/api/roster";
import { useFrame } from "@/api/sheet";
import { LEVELS } from "@/shared/levels";
import { OtherVersion, differencesOf } from "@/frame/OtherVersion";
import { keptWeight, typedWeight, weightUnit } from "@/words";
import { Weighings } from "./Weighings";

/** Name, body weight, level, age and note of an athlete. */
export function About({ place }: { place: WeekPlace }) {
  const frame = useFrame(place);
  const athlete = frame.data?.athlete;
  if (!athlete || athlete.id !== place.athlete) return null;
  return <Fields key={athlete.id} athlete={athlete} />;
}

type Athlete = Schemas["AthleteOut"];
type Level = Athlete["level"];

/** What is typed of an athlete. */
interface Typed {
  name: string;
  bodyweight: string;
  squad: string;
  level: Level;
  born: string;
  note: string;
}

const typedOf = (athlete: Athlete): Typed => ({
  name: athlete.name,
  bodyweight: athlete.bodyweight_kg === null ? "" : String(typedWeight(athlete.bodyweight_kg)),
  squad: athlete.squad,
  level: athlete.level,
  born: athlete.born === null ? "" : String(athlete.born),
  note: athlete.note,
});

/** What it comes to, to be kept. */
const saidBy = (typed: Typed) => ({
  name: typed.name.trim(),
  bodyweight_kg: typed.bodyweight.trim()
    ? keptWeight(Number(typed.bodyweight.replace(",", ".")))
    : null,
  squad: typed.squad.trim(),
  level: typed.level,
  born: typed.born.trim() ? Number(typed.born) : null,
  note: typed.note,
});

function wrongIn({ name, bodyweight_kg, born }: ReturnType<typeof saidBy>): string | null {
  if (name === "") return "Give the athlete a name.";
  if (bodyweight_kg !== null && !Number.isFinite(bodyweight_kg))
    return "A body weight is a number, as in 62.5; leave it empty if it is not known.";
  if (born !== null && !Number.isInteger(born))
    return "A year of birth is a year, as in 2009; leave it empty if it does not matter.";
  return null;
}

function Fields({ athlete }: { athlete: Athlete }) {
  const [typed, setTyped] = useState(() => typedOf(athlete));
  const [base, setBase] = useState(athlete);
  const put = (part: Partial<Typed>) => setTyped((old) => ({ ...old, ...part }));
  const said = saidBy(typed);
  const save = useChange(() => people.describe(athlete.id, said));
  const changed = JSON.stringify(said) !== JSON.stringify(saidBy(typedOf(base)));
  // What another window keeps is shown at once, but never over what is typed here.
  const isOlder = JSON.stringify(athlete) !== JSON.stringify(base);
  const take = () => {
    setBase(athlete);
    setTyped(typedOf(athlete));
  };
  if (isOlder && (!changed || JSON.stringify(said) === JSON.stringify(saidBy(typedOf(athlete)))))
    take();
  const wrong = wrongIn(said);
  return (
    <section aria-labelledby="about" className="mb-7 max-w-3xl">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule pb-1">
        <h2 id="about" className="text-xl font-semibold">
          The athlete
        </h2>
        <p className="text-sm text-ink-2">
          Body weight enters the volume load of press-ups, pull-ups and the like.
        </p>
      </div>
      {isOlder && changed && (
        <OtherVersion
          what="This was"
          differences={differencesOf(saidBy(typedOf(athlete)), said, (name) =>
            name.replace("bodyweight_kg", "usual body weight, kg"),
          )}
          takeTheirs={take}
          keepMine={() => setBase(athlete)}
        />
      )}
      <form
        className="mt-2 flex flex-wrap items-end gap-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (changed && !wrong) save.mutate(undefined);
        }}
      >
        <Text
          label="Name"
          width="w-48"
          most={120}
          value={typed.name}
          put={(name) => put({ name })}
        />
        <Text
          label={`Usual body weight, ${weightUnit()}`}
          width="w-44"
          most={12}
          mode="decimal"
          value={typed.bodyweight}
          put={(bodyweight) => put({ bodyweight })}
        />
        <Text
          label="Squad"
          width="w-32"
          most={60}
          value={typed.squad}
          put={(squad) => put({ squad })}
        />
        <LevelField value={typed.level} put={(level) => put({ level })} />
        <Text
          label="Born in"
          width="w-20"
          most={4}
          mode="numeric"
          value={typed.born}
          put={(born) => put({ born })}
        />
        <Text
          label="Note"
          width="min-w-48 flex-1"
          most={500}
          value={typed.note}
          put={(note) => put({ note })}
        />
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
      <Weighings athlete={athlete.id} />
      <Limits />
    </section>
  );
}

/** Where the rest of what is asked of one athlete stands. */
const Limits = () => (
  <p className="mt-2 text-sm text-ink-2">
    Limits of a session (minutes, movements) and the target RPE are among the{" "}
    <a href="#rules-session" className="trail-link">
      rules
    </a>{" "}
    below.
  </p>
);

function LevelField({ value, put }: { value: Level; put: (level: Level) => void }) {
  return (
    <label>
      <span className="block text-ink-2">Level</span>
      <select
        className="field"
        value={value}
        onChange={(event) => put(event.target.value as Level)}
      >
        <option value="">not set</option>
        {LEVELS.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
    </label>
  );
}

interface TextProps {
  label: string;
  width: string;
  most: number;
  mode?: "decimal" | "numeric";
  value: string;
  put: (value: string) => void;
}

function Text({ label, width, most, mode, value, put }: TextProps) {
  return (
    <label className={width}>
      <span className="block text-ink-2">{label}</span>
      <input
        className="field w-full"
        inputMode={mode}
        maxLength={most}
        value={value}
        onChange={(event) => put(event.target.value)}
      />
    </label>
  );
}
