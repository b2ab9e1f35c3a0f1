import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { restrictions, useRestrictions } from "@/api/restrictions";
import { DialogSheet } from "@/frame/DialogSheet";
import { date, keptWeight, weightUnit } from "@/words";

type Kept = Schemas["RestrictionOut"];
type About = "movement" | "pattern" | "muscle" | "tempo";

const ABOUT: Record<About, string> = {
  movement: "a movement",
  pattern: "a pattern",
  muscle: "a muscle",
  tempo: "a phase of the tempo",
};

/** What the athlete is to avoid, on whose word; every plan is checked against it. */
export function Restrictions({ athlete }: { athlete: number }) {
  const found = useRestrictions(athlete);
  const [adding, setAdding] = useState(false);
  const [lifting, setLifting] = useState<Kept | null>(null);
  const restore = useChange((id: number) => restrictions.restore(athlete, id));
  const all = found.data?.restrictions ?? [];
  return (
    <section aria-labelledby="restrictions" className="mb-7 max-w-3xl">
      <div className="flex items-baseline gap-4 border-b border-rule pb-1">
        <h2 id="restrictions" className="text-xl font-semibold">
          Restrictions
        </h2>
        <p className="text-sm text-ink-2">
          What this athlete is to avoid or limit; every plan and log is checked against it.
        </p>
        <button type="button" className="key-button ml-auto" onClick={() => setAdding(true)}>
          Add one
        </button>
      </div>
      {all.length === 0 && found.data && (
        <p className="py-2 text-sm text-ink-2">
          None. A joint that went bad once belongs here, with the word of the practitioner who said
          so.
        </p>
      )}
      <ul>
        {all.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-hair py-1.5">
            <span className={`min-w-0 flex-1 ${one.holds ? "" : "text-ink-2"}`}>
              <span
                className={`inline-block first-letter:uppercase ${one.holds ? "font-semibold" : one.restriction.lifted_on ? "line-through" : ""}`}
              >
                {one.words}
              </span>
              <span className="block text-sm text-ink-2">
                {one.restriction.by}, {date(one.restriction.since)}
                {one.restriction.word && `: “${one.restriction.word}”`}
                {one.restriction.lifted_on &&
                  ` · lifted by ${one.restriction.lifted_by}, ${date(one.restriction.lifted_on)}`}
                {!one.holds && !one.restriction.lifted_on && " · not yet in force"}
              </span>
            </span>
            {one.restriction.lifted_on ? (
              <button
                type="button"
                className="trail-link min-h-6 text-sm"
                disabled={restore.isPending}
                onClick={() => restore.mutate(one.id)}
              >
                Put back in force
              </button>
            ) : (
              <button
                type="button"
                className="trail-link min-h-6 text-sm"
                onClick={() => setLifting(one)}
              >
                Lift it
              </button>
            )}
          </li>
        ))}
      </ul>
      {(found.error ?? restore.error) && (
        <p role="alert" className="mt-2 text-sm text-high">
          {(found.error ?? restore.error)?.message}
        </p>
      )}
      {adding && found.data && (
        <AddOne
          athlete={athlete}
          today={found.data.today}
          subjects={found.data.subjects}
          close={() => setAdding(false)}
        />
      )}
      {lifting && <Lift athlete={athlete} one={lifting} close={() => setLifting(null)} />}
    </section>
  );
}

const inKg = (typed: number | null) => (typed === null ? null : keptWeight(typed));
const number = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));

function AddOne({
  athlete,
  today,
  subjects,
  close,
}: {
  athlete: number;
  today: string;
  subjects: Record<string, string[]>;
  close: () => void;
}) {
  const [about, setAbout] = useState<About>("movement");
  const [how, setHow] = useState<"avoid" | "limit">("avoid");
  const [said, setSaid] = useState({
    subject: "",
    most_sets: "",
    most_load_kg: "",
    least_s: "",
    most_s: "",
    by: "",
    word: "",
    since: today,
  });
  const put = (part: Partial<typeof said>) => setSaid((now) => ({ ...now, ...part }));
  const limited = about === "tempo" || how === "limit";
  const none = { most_sets: null, most_load_kg: null, least_s: null, most_s: null };
  const limits =
    about === "tempo"
      ? { ...none, least_s: number(said.least_s), most_s: number(said.most_s) }
      : how === "limit"
        ? {
            ...none,
            most_sets: number(said.most_sets),
            most_load_kg: inKg(number(said.most_load_kg)),
          }
        : none;
  const keep = useChange(() =>
    restrictions.add(athlete, {
      about,
      subject: said.subject,
      by: said.by,
      word: said.word,
      since: said.since,
      ...limits,
      lifted_on: null,
      lifted_by: null,
    }),
  );
  const names = subjects[about] ?? [];
  const ready =
    said.subject.trim() !== "" &&
    said.by.trim() !== "" &&
    (!limited || Object.values(limits).some((one) => one !== null));
  return (
    <DialogSheet open close={close} title="A restriction" wide>
      <form
        className="grid grid-cols-2 gap-x-6 gap-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate(undefined, { onSuccess: close });
        }}
      >
        <label>
          About
          <select
            value={about}
            onChange={(event) => {
              setAbout(event.target.value as About);
              put({ subject: "" });
            }}
            className="field mt-0.5 block w-full"
          >
            {Object.entries(ABOUT).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label>
          Which
          {about === "movement" ? (
            <>
              <input
                list="restriction-subjects"
                value={said.subject}
                onChange={(event) => put({ subject: event.target.value })}
                className="field mt-0.5 block w-full"
              />
              <datalist id="restriction-subjects">
                {names.map((one) => (
                  <option key={one} value={one} />
                ))}
              </datalist>
            </>
          ) : (
            <select
              value={said.subject}
              onChange={(event) => put({ subject: event.target.value })}
              className="field mt-0.5 block w-full"
            >
              <option value="">choose</option>
              {names.map((one) => (
                <option key={one} value={one}>
                  {one.replaceAll("_", " ")}
                </option>
              ))}
            </select>
          )}
        </label>
        {about !== "tempo" && (
          <fieldset className="col-span-2 flex gap-6">
            <legend className="sr-only">How far</legend>
            {(["avoid", "limit"] as const).map((one) => (
              <label key={one} className="flex min-h-6 items-center gap-2">
                <input
                  type="radio"
                  name="how"
                  checked={how === one}
                  onChange={() => setHow(one)}
                  className="accent-ink"
                />
                {one === "avoid" ? "to be avoided" : "within a limit"}
              </label>
            ))}
          </fieldset>
        )}
        {about === "tempo" && (
          <Limit
            label="Seconds of that phase, at least"
            value={said.least_s}
            put={(least_s) => put({ least_s })}
          />
        )}
        {about === "tempo" && (
          <Limit
            label="Seconds of that phase, at most"
            value={said.most_s}
            put={(most_s) => put({ most_s })}
          />
        )}
        {about !== "tempo" && how === "limit" && (
          <Limit
            label="Sets a week, at most"
            value={said.most_sets}
            put={(most_sets) => put({ most_sets })}
          />
        )}
        {about !== "tempo" && how === "limit" && (
          <Limit
            label={`Load of a set in all, ${weightUnit()}, at most`}
            value={said.most_load_kg}
            put={(most_load_kg) => put({ most_load_kg })}
          />
        )}
        <label>
          On whose word
          <input
            value={said.by}
            maxLength={120}
            placeholder="name and profession"
            onChange={(event) => put({ by: event.target.value })}
            className="field mt-0.5 block w-full"
          />
        </label>
        <label>
          From
          <input
            type="date"
            value={said.since}
            onChange={(event) => put({ since: event.target.value })}
            className="field mt-0.5 block w-full"
          />
        </label>
        <label className="col-span-2">
          What was said
          <input
            value={said.word}
            maxLength={500}
            onChange={(event) => put({ word: event.target.value })}
            className="field mt-0.5 block w-full"
          />
        </label>
        {keep.error && (
          <p role="alert" className="col-span-2 text-sm text-high">
            {keep.error.message}
          </p>
        )}
        <p className="col-span-2 text-sm text-ink-2">
          Pain and injury are for a licensed practitioner. It holds until a person lifts it, and
          stays on record after that.
        </p>
        <p className="col-span-2 flex gap-3">
          <button type="submit" className="ink-button" disabled={!ready || keep.isPending}>
            Set it
          </button>
          <button type="button" className="key-button" onClick={close}>
            Back
          </button>
        </p>
      </form>
    </DialogSheet>
  );
}

function Limit({
  label,
  value,
  put,
}: {
  label: string;
  value: string;
  put: (value: string) => void;
}) {
  return (
    <label>
      {label}
      <input
        value={value}
        inputMode="decimal"
        onChange={(event) => put(event.target.value)}
        className="field mt-0.5 block w-full"
      />
    </label>
  );
}

function Lift({ athlete, one, close }: { athlete: number; one: Kept; close: () => void }) {
  const [by, setBy] = useState("");
  const keep = useChange(() => restrictions.lift(athlete, one.id, by));
  return (
    <DialogSheet open close={close} title={`Lift “${one.words}”`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate(undefined, { onSuccess: close });
        }}
      >
        <p>
          It was set on the word of {one.restriction.by}. Lift it on their word, or on that of
          another licensed practitioner.
        </p>
        <label className="mt-3 block">
          Who lifts it
          <input
            value={by}
            maxLength={120}
            onChange={(event) => setBy(event.target.value)}
            className="field mt-0.5 block w-full"
          />
        </label>
        {keep.error && (
          <p role="alert" className="mt-2 text-sm text-high">
            {keep.error.message}
          </p>
        )}
        <p className="mt-4 flex gap-3">
          <button type="submit" className="ink-button" disabled={!by.trim() || keep.isPending}>
            Lift it from today on
          </button>
          <button type="button" className="key-button" onClick={close}>
            Back
          </button>
        </p>
      </form>
    </DialogSheet>
  );
}
