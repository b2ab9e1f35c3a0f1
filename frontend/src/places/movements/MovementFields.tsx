import type { Schemas } from "@/api/client";
import { Tick } from "@/frame/Tick";
import { type Role, type Typed, plain } from "./typed";

interface MovementFieldsProps {
  typed: Typed;
  all: Schemas["MovementsOut"];
  names: string[];
  put: (part: Partial<Typed>) => void;
}

/** What a movement is: its pattern, its muscles, what of the body it moves, and the levels beside it. */
export function MovementFields({ typed, all, names, put }: MovementFieldsProps) {
  return (
    <>
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
      <Muscles typed={typed} muscles={all.muscles} put={put} />
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
      <label className="mt-1 block">
        Progresses by
        <select
          value={typed.progress}
          onChange={(event) => put({ progress: event.target.value })}
          className="field mt-0.5 block h-8 w-full"
        >
          <option value="">the house rule</option>
          {all.progress.map((one) => (
            <option key={one.value} value={one.value}>
              {one.meaning}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

interface MusclesProps {
  typed: Typed;
  muscles: string[];
  put: (part: Partial<Typed>) => void;
}

/** Which muscles it trains, directly or not. */
function Muscles({ typed, muscles, put }: MusclesProps) {
  return (
    <fieldset className="mt-2">
      <legend>Muscles</legend>
      <div className="columns-2 gap-4">
        {muscles.map((muscle) => (
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
                    event.target.value ? [...others, [muscle, event.target.value as Role]] : others,
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
  );
}

interface TextProps {
  label: string;
  value: string;
  put: (value: string) => void;
  hint?: string;
}

export function Text({ label, value, put, hint }: TextProps) {
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

interface LevelProps {
  label: string;
  value: string;
  names: string[];
  put: (value: string) => void;
}

function Level({ label, value, names, put }: LevelProps) {
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
