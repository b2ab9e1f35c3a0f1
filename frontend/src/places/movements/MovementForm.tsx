import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { movement as calls } from "@/api/movements";
import { weekPath } from "@/frame/places";
import { signed, unit, weekName } from "@/words";

type Known = Schemas["MovementOut"];
type Core = Schemas["Movement"];
type Role = "direct" | "indirect";

interface Props {
  /** The movement to change; null for a new one. */
  one: Known | null;
  all: Schemas["MovementsOut"];
  close: (name: string | null) => void;
}

const plain = (word: string) => word.replaceAll("_", " ");
const several = (text: string) =>
  text
    .split(",")
    .map((word) => word.trim())
    .filter(Boolean);

interface Typed {
  name: string;
  pattern: string;
  compound: boolean;
  isometric: boolean;
  one_sided: boolean;
  share: string;
  tempo: string;
  muscles: Record<string, Role>;
  aliases: string;
  kit: string;
  easier: string;
  harder: string;
}

function typedOf(one: Known | null): Typed {
  return {
    name: one?.name ?? "",
    pattern: one?.pattern ?? "horizontal_push",
    compound: one?.compound ?? true,
    isometric: one?.isometric ?? false,
    one_sided: one?.one_sided ?? false,
    share: String(one?.bodyweight_share ?? 0),
    tempo: one?.tempo ?? "",
    muscles: Object.fromEntries([
      ...(one?.direct ?? []).map((muscle) => [muscle, "direct"]),
      ...(one?.indirect ?? []).map((muscle) => [muscle, "indirect"]),
    ]) as Record<string, Role>,
    aliases: one?.aliases.join(", ") ?? "",
    kit: one?.kit.join(", ") ?? "",
    easier: one?.easier ?? "",
    harder: one?.harder ?? "",
  };
}

const coreOf = (typed: Typed): Core => ({
  name: typed.name,
  pattern: typed.pattern as Core["pattern"],
  compound: typed.compound,
  isometric: typed.isometric,
  one_sided: typed.one_sided,
  bodyweight_share: Number(typed.share.replace(",", ".") || 0),
  tempo: typed.tempo || null,
  muscles: typed.muscles,
  aliases: several(typed.aliases),
  kit: several(typed.kit),
  easier: typed.easier || null,
  harder: typed.harder || null,
});

/** A movement to change or to add; what a change alters in past audits is shown before it is kept. */
export function MovementForm({ one, all, close }: Props) {
  const [typed, setTyped] = useState(() => typedOf(one));
  const [effect, setEffect] = useState<Schemas["MovementEffect"] | null>(null);
  const put = (part: Partial<Typed>) => {
    setTyped((now) => ({ ...now, ...part }));
    setEffect(null);
  };
  const body = { movement: coreOf(typed) };
  const look = useLook(async () => {
    if (one) setEffect(await calls.effect(one.id, body));
  });
  const save = useChange(async () =>
    close((one ? await calls.save(one.id, body) : await calls.add(body)).name),
  );
  const error = look.error ?? save.error;
  const names = all.movements.map((other) => other.name).filter((name) => name !== one?.name);
  return (
    <form
      className="text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (one && !effect) look.mutate(undefined);
        else save.mutate(undefined);
      }}
    >
      <h2 className="double-rule mb-2 pb-1 text-lg font-semibold">
        {one ? one.name : "A new movement"}
      </h2>
      {!one && <Text label="Name" value={typed.name} put={(name) => put({ name })} />}
      <label className="mt-1 block">
        Pattern
        <select
          value={typed.pattern}
          onChange={(event) => put({ pattern: event.target.value })}
          className="field mt-0.5 block h-8 w-full"
        >
          {all.patterns.map((pattern) => (
            <option key={pattern} value={pattern}>
              {plain(pattern)}
            </option>
          ))}
        </select>
      </label>
      <p className="mt-2 flex flex-wrap gap-x-4">
        <Tick label="compound" value={typed.compound} put={(compound) => put({ compound })} />
        <Tick label="isometric" value={typed.isometric} put={(isometric) => put({ isometric })} />
        <Tick label="one-sided" value={typed.one_sided} put={(one_sided) => put({ one_sided })} />
      </p>
      <fieldset className="mt-2">
        <legend>Muscles</legend>
        <div className="columns-2 gap-4">
          {all.muscles.map((muscle) => (
            <label key={muscle} className="flex min-h-6 items-center border-b border-hair">
              <span className={`flex-1 ${typed.muscles[muscle] ? "font-semibold" : ""}`}>
                {plain(muscle)}
              </span>
              <select
                value={typed.muscles[muscle] ?? ""}
                className="h-6 bg-paper text-ink-2"
                onChange={(event) => {
                  const others = Object.entries(typed.muscles).filter(([name]) => name !== muscle);
                  put({
                    muscles: Object.fromEntries(
                      event.target.value
                        ? [...others, [muscle, event.target.value as Role]]
                        : others,
                    ) as Record<string, Role>,
                  });
                }}
              >
                <option value="">–</option>
                <option value="direct">direct</option>
                <option value="indirect">indirect</option>
              </select>
            </label>
          ))}
        </div>
      </fieldset>
      <span className="mt-2 flex gap-3">
        <Text label="Share of body weight" value={typed.share} put={(share) => put({ share })} />
        <Text
          label="Usual tempo"
          value={typed.tempo}
          put={(tempo) => put({ tempo })}
          hint="2-0-1-0"
        />
      </span>
      <Text
        label="Also called, commas between"
        value={typed.aliases}
        put={(aliases) => put({ aliases })}
      />
      <Text label="Kit, commas between" value={typed.kit} put={(kit) => put({ kit })} />
      <span className="mt-1 flex gap-3">
        <Level
          label="Easier level"
          value={typed.easier}
          names={names}
          put={(easier) => put({ easier })}
        />
        <Level
          label="Harder level"
          value={typed.harder}
          names={names}
          put={(harder) => put({ harder })}
        />
      </span>
      {error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-2 whitespace-pre-line">
          {error.message}
        </p>
      )}
      {effect && <Effect effect={effect} />}
      <p className="mt-3 flex gap-3">
        <button
          type="submit"
          className={effect || !one ? "ink-button" : "key-button"}
          disabled={look.isPending || save.isPending}
        >
          {!one
            ? "Add it"
            : effect
              ? "Keep the change"
              : look.isPending
                ? "Counting the past weeks…"
                : "What does it alter?"}
        </button>
        <button type="button" className="key-button" onClick={() => close(null)}>
          Cancel
        </button>
      </p>
    </form>
  );
}

/** Which audits a change alters: it counts the new way in past weeks, too, so that weeks compare. */
function Effect({ effect }: { effect: Schemas["MovementEffect"] }) {
  const go = useNavigate();
  return (
    <section aria-label="What it alters" className="mt-3 border-l-4 border-caution pl-3">
      <p>
        {effect.sets === 0
          ? "No set of it is planned or done."
          : `${effect.sets} sets of ${effect.athletes} athlete${effect.athletes === 1 ? "" : "s"} are of it.`}{" "}
        {effect.sheets.length === 0
          ? `No total and no finding of the last ${effect.weeks_looked_at} weeks changes.`
          : `Totals or findings change in ${effect.sheets.length} week sheet${effect.sheets.length === 1 ? "" : "s"} of the last ${effect.weeks_looked_at} weeks. Past weeks are counted the new way, too, so that weeks compare.`}
      </p>
      <ul className="max-h-60 overflow-auto">
        {effect.sheets.map((one) => (
          <li key={`${one.athlete}/${one.week}`} className="border-b border-hair py-1">
            <button
              type="button"
              className="trail-link"
              onClick={() => go(weekPath(one.athlete, one.week, "sheet"))}
            >
              {one.name}, {weekName(one.week).toLowerCase()}
            </button>
            {one.signed && <span className="text-caution"> signed</span>}
            {(one.sets !== 0 || one.volume_load_kg !== 0 || one.tut_s !== 0) && (
              <span className="text-ink-2">
                : {signed(one.sets, "sets")} sets, {signed(one.volume_load_kg, "volume_load_kg")}{" "}
                {unit("volume_load_kg")}, {signed(one.tut_s, "tut_s")} s
              </span>
            )}
            {one.appeared.length > 0 && <p>new: {one.appeared.join("; ")}</p>}
            {one.cleared.length > 0 && <p>gone: {one.cleared.join("; ")}</p>}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Text({
  label,
  value,
  put,
  hint,
}: {
  label: string;
  value: string;
  put: (value: string) => void;
  hint?: string;
}) {
  return (
    <label className="mt-1 block min-w-0 flex-1">
      {label}
      <input
        value={value}
        placeholder={hint}
        onChange={(event) => put(event.target.value)}
        className="field mt-0.5 block w-full"
      />
    </label>
  );
}

function Tick({
  label,
  value,
  put,
}: {
  label: string;
  value: boolean;
  put: (value: boolean) => void;
}) {
  return (
    <label className="flex min-h-6 items-center gap-1.5">
      <input
        type="checkbox"
        checked={value}
        onChange={(event) => put(event.target.checked)}
        className="size-4 accent-ink"
      />
      {label}
    </label>
  );
}

function Level({
  label,
  value,
  names,
  put,
}: {
  label: string;
  value: string;
  names: string[];
  put: (value: string) => void;
}) {
  return (
    <label className="block min-w-0 flex-1">
      {label}
      <select
        value={value}
        onChange={(event) => put(event.target.value)}
        className="field mt-0.5 block h-8 w-full"
      >
        <option value="">none</option>
        {names.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </label>
  );
}
