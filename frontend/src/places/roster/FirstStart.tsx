import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { house as houseCalls, useHouse } from "@/api/house";
import { kit as kitCalls, useKit } from "@/api/kit";
import { rules as ruleCalls, useRules } from "@/api/rules";
import { unit as unitCalls, useUnit } from "@/api/unit";
import { Tick } from "@/frame/Tick";

/** The first day: what a house needs to begin. Each step can be left out, and changed later. */
export function FirstStart({ add }: { add: () => void }) {
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,1fr)] gap-x-16 py-6 max-lg:block">
      <div>
        <p className="text-lg">Nobody is on the roster yet.</p>
        <p className="mt-1 text-ink-2">
          Four short steps; only the last one is needed. Each can be skipped, and changed later in
          its own place.
        </p>
        <ol className="mt-4">
          <House />
          <School />
          <Room />
          <Step number={4} title="The first athletes" later="/files" where="Files">
            <p>
              One name on each line, or paste a whole squad; writing the first session takes a
              minute.
            </p>
            <p className="mt-2 flex flex-wrap gap-3">
              <button type="button" className="ink-button" onClick={add}>
                Add your first athletes
              </button>
              <Link to="/files" className="key-button">
                Import a book or a spreadsheet
              </Link>
            </p>
          </Step>
        </ol>
      </div>
      <LookAround />
    </div>
  );
}

/** The made-up club, for whoever would rather see first what it is all for. */
function LookAround() {
  const load = useChange(houseCalls.loadClub);
  return (
    <aside className="max-lg:border-t max-lg:border-rule max-lg:pt-3">
      <h2 className="text-lg">Look around first?</h2>
      <p className="mt-1 text-ink-2">
        A made-up rowing club comes with a season of plans and logs. When you have seen enough, you
        remove it in Files; whoever you added stays.
      </p>
      <p className="mt-2 flex flex-wrap items-baseline gap-3">
        <button
          type="button"
          className="key-button"
          disabled={load.isPending || load.isSuccess}
          onClick={() => load.mutate(undefined)}
        >
          Try it with the made-up club
        </button>
        <span role="status" className="text-sm text-ink-2">
          {load.isPending && "Setting up the club: a few seconds…"}
        </span>
      </p>
      {load.error && (
        <p role="alert" className="mt-2 text-high">
          {load.error.message}
        </p>
      )}
    </aside>
  );
}

interface StepProps {
  number: number;
  title: string;
  later: string;
  where: string;
  children: ReactNode;
}

function Step({ number, title, later, where, children }: StepProps) {
  return (
    <li className="border-t border-rule py-3">
      <h2 className="flex items-baseline gap-2 font-semibold">
        <span className="text-ink-2">{number}.</span> {title}
        <Link to={later} className="trail-link ml-auto text-sm font-normal text-ink-2">
          later in {where}
        </Link>
      </h2>
      <div className="mt-1 pl-6">{children}</div>
    </li>
  );
}

/** What the house is called, and in which unit it weighs. */
function House() {
  const found = useHouse();
  const shown = useUnit();
  const [typed, setTyped] = useState<string | null>(null);
  const name = useChange((wanted: string) => houseCalls.name(wanted));
  const choose = useChange((wanted: "kg" | "lb") => unitCalls.choose(wanted));
  const value = typed ?? found.data?.name ?? "";
  return (
    <Step number={1} title="The house" later="/kit" where="Kit">
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          name.mutate(value);
        }}
      >
        <label>
          <span className="block text-sm text-ink-2">Name of the house</span>
          <input
            className="field w-72"
            maxLength={120}
            value={value}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <label>
          <span className="block text-sm text-ink-2">Weights in</span>
          <select
            className="field"
            value={shown.data?.unit ?? "kg"}
            onChange={(event) => choose.mutate(event.target.value as "kg" | "lb")}
          >
            <option>kg</option>
            <option>lb</option>
          </select>
        </label>
        <button
          type="submit"
          className="key-button"
          disabled={value.trim() === (found.data?.name ?? "") || name.isPending}
        >
          Save
        </button>
        {name.isSuccess && <Kept />}
      </form>
    </Step>
  );
}

const Kept = () => (
  <span role="status" className="text-sm text-ink-2">
    saved
  </span>
);

interface KeepProps {
  ready: boolean;
  keep: { isPending: boolean; isSuccess: boolean; error: Error | null };
  press: () => void;
}

/** Keep what was chosen, and what came of it. */
function Keep({ ready, keep, press }: KeepProps) {
  return (
    <p className="mt-2 flex items-baseline gap-3">
      <button
        type="button"
        className="key-button"
        disabled={!ready || keep.isPending}
        onClick={press}
      >
        Save
      </button>
      {keep.isSuccess && <Kept />}
      {keep.error && (
        <span role="alert" className="text-high">
          {keep.error.message}
        </span>
      )}
    </p>
  );
}

/** How sets are counted: one of the schools that ship. */
function School() {
  const found = useRules(null);
  const keep = useChange((preset: Schemas["PresetOut"]) =>
    ruleCalls.save(null, {
      revision: found.data?.revision ?? 0,
      chosen: { ...found.data?.chosen, ...preset.rules },
    }),
  );
  const presets = (found.data?.presets ?? []).filter((one) => !one.of_house);
  const [chosen, setChosen] = useState("balanced");
  const preset = presets.find((one) => one.name === chosen);
  return (
    <Step number={2} title="How sets are counted" later="/rules" where="House rules">
      <fieldset>
        <legend className="sr-only">School</legend>
        {presets.map((one) => (
          <label key={one.name} className="flex min-h-6 items-baseline gap-2">
            <input
              type="radio"
              name="school"
              checked={one.name === chosen}
              onChange={() => setChosen(one.name)}
              className="accent-ink"
            />
            <span className="text-ink-2">
              <span className="mr-2 font-semibold text-ink">{one.name}</span>
              {one.says}
            </span>
          </label>
        ))}
      </fieldset>
      <Keep ready={preset !== undefined} keep={keep} press={() => preset && keep.mutate(preset)} />
    </Step>
  );
}

/** What the room has, of what many have. */
function Room() {
  const found = useKit();
  const [chosen, setChosen] = useState<string[]>([]);
  const starts = found.data?.starts ?? [];
  const keep = useChange(() =>
    kitCalls.begin({ revision: found.data?.revision ?? 0, starts: chosen }),
  );
  return (
    <Step number={3} title="What the room has" later="/kit" where="Kit">
      <div className="flex flex-wrap gap-x-6">
        {starts.map((one) => (
          <Tick
            key={one}
            label={one}
            value={chosen.includes(one)}
            put={(on) =>
              setChosen((now) => (on ? [...now, one] : now.filter((other) => other !== one)))
            }
          />
        ))}
      </div>
      <Keep ready={chosen.length > 0} keep={keep} press={() => keep.mutate(undefined)} />
    </Step>
  );
}
