import { useState } from "react";
import type { Schemas } from "@/api/client";
import { LEVELS } from "@/shared/levels";
import { keptWeight, typedWeight, weightUnit } from "@/words";
import type { Person, Said } from "./usePasted";

interface Props {
  people: Person[];
  put: (key: string, part: Partial<Said>) => void;
  drop: (key: string) => void;
}

const COLUMNS =
  "flex flex-wrap gap-1.5 md:grid md:grid-cols-[minmax(9rem,2fr)_4rem_minmax(5rem,1fr)_7.5rem_4rem_minmax(6rem,2fr)_2.25rem]";

/** Who was found in the text, field by field, to be corrected before anything is stored. */
export function PeopleTable({ people, put, drop }: Props) {
  const heads = ["Name", weightUnit(), "Squad", "Level", "Born", "Note", ""];
  return (
    <div className="text-sm">
      <div
        aria-hidden
        className={`${COLUMNS} sticky top-0 border-b border-rule bg-sheet text-ink-2 italic max-md:hidden`}
      >
        {heads.map((head) => (
          <span key={head}>{head}</span>
        ))}
      </div>
      <ul>
        {people.map((one) => (
          <Line
            key={one.key}
            one={one}
            put={(part) => put(one.key, part)}
            drop={() => drop(one.key)}
          />
        ))}
      </ul>
    </div>
  );
}

interface LineProps {
  one: Person;
  put: (part: Partial<Said>) => void;
  drop: () => void;
}

function Line({ one, put, drop }: LineProps) {
  const who = one.name || `line ${one.line}`;
  return (
    <li className="border-b border-hair py-1.5">
      <div className={COLUMNS}>
        <Cell label={`Name of ${who}`} hint="name" value={one.name} put={(name) => put({ name })} />
        <NumberCell
          label={`Body weight of ${who}, ${weightUnit()}`}
          hint={weightUnit()}
          value={one.bodyweight_kg === null ? null : typedWeight(one.bodyweight_kg)}
          put={(typed) => put({ bodyweight_kg: typed === null ? null : keptWeight(typed) })}
        />
        <Cell
          label={`Squad of ${who}`}
          hint="squad"
          value={one.squad}
          put={(squad) => put({ squad })}
        />
        <select
          aria-label={`Level of ${who}`}
          className="field min-w-0"
          value={one.level}
          onChange={(event) =>
            put({ level: event.target.value as Schemas["NewcomerOut"]["level"] })
          }
        >
          <option value="">not set</option>
          {LEVELS.map((level) => (
            <option key={level}>{level}</option>
          ))}
        </select>
        <NumberCell
          label={`Year of birth of ${who}`}
          hint="born"
          value={one.born}
          put={(born) => put({ born })}
        />
        <Cell label={`Note on ${who}`} hint="note" value={one.note} put={(note) => put({ note })} />
        <button
          type="button"
          className="key-button px-0 max-md:w-10"
          aria-label={`Leave out ${who}`}
          title="Leave this line out"
          onClick={drop}
        >
          ✕
        </button>
      </div>
      {one.problem ? (
        <p className="mt-0.5 text-high">
          Line {one.line}: {one.problem}
        </p>
      ) : (
        one.told && <p className="mt-0.5 text-xs text-ink-2">{one.told}</p>
      )}
    </li>
  );
}

interface CellProps<T> {
  label: string;
  hint: string;
  value: T;
  put: (value: T) => void;
}

const Cell = ({ label, hint, value, put }: CellProps<string>) => (
  <input
    aria-label={label}
    placeholder={hint}
    className="field min-w-0 max-md:w-40"
    value={value}
    onChange={(event) => put(event.target.value)}
  />
);

/** A number as it is being typed; what is none is marked, and not taken. */
function NumberCell({ label, hint, value, put }: CellProps<number | null>) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && !Number.isFinite(numberIn(typed));
  return (
    <input
      aria-label={label}
      aria-invalid={wrong}
      placeholder={hint}
      inputMode="decimal"
      className={`field figure min-w-0 px-1.5 max-md:w-20 ${wrong ? "border-high" : ""}`}
      value={typed ?? value ?? ""}
      onChange={(event) => {
        const now = event.target.value;
        setTyped(now);
        if (now.trim() === "") put(null);
        else if (Number.isFinite(numberIn(now))) put(numberIn(now));
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

const numberIn = (typed: string) => Number(typed.trim().replace(",", "."));
