import type { Schemas } from "@/api/client";
import { useRoster } from "@/api/roster";
import { Pick } from "./Pick";

type Choice = Schemas["SheetChoice"];

interface ColumnsProps {
  read: Schemas["SheetOut"];
  choice: Choice;
  put: (part: Partial<Choice>) => void;
}

/** What the columns of a file mean, with its first rows below them. */
export function Columns({ read, choice, put }: ColumnsProps) {
  const meaning = (at: number) =>
    Object.entries(choice.columns).find(([, place]) => place === at)?.[0] ?? "";
  const set = (at: number, name: string) => {
    const others = Object.entries(choice.columns).filter(
      ([known, place]) => place !== at && known !== name,
    );
    put({ columns: Object.fromEntries(name ? [...others, [name, at]] : others) });
  };
  return (
    <>
      {/* It scrolls and holds fields: wide files have many columns. */}
      <div className="mt-3 max-w-full overflow-x-auto">
        <table className="text-sm">
          <thead>
            <tr className="text-left">
              {read.heads.map((head, at) => (
                <th
                  key={`${head}/${at}`}
                  scope="col"
                  className="max-w-40 truncate pr-4 font-semibold"
                >
                  {head}
                </th>
              ))}
            </tr>
            <tr>
              {read.heads.map((head, at) => (
                <td key={`${head}/${at}`} className="pr-4 pb-1">
                  <select
                    aria-label={`Column ${head} means`}
                    value={meaning(at)}
                    onChange={(event) => set(at, event.target.value)}
                    className={`h-6 w-32 border-b border-rule bg-sheet ${meaning(at) ? "" : "text-ink-2"}`}
                  >
                    <option value="">left out</option>
                    {read.columns.map((one) => (
                      <option key={one.name} value={one.name}>
                        {one.title}
                      </option>
                    ))}
                  </select>
                </td>
              ))}
            </tr>
          </thead>
          <tbody>
            {read.sample.map((row, line) => (
              // Rows of a file have no name but their place.
              <tr key={line} className="border-t border-hair text-ink-2">
                {read.heads.map((head, at) => (
                  <td key={`${head}/${at}`} className="max-w-40 truncate pr-4">
                    {row[at] ?? ""}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Written choice={choice} put={put} />
      <Why read={read} choice={choice} />
    </>
  );
}

/** What speaks for what was guessed, as long as it stands; and what stays out. */
function Why({ read, choice }: { read: Schemas["SheetOut"]; choice: Choice }) {
  const stands = (field: Field) =>
    field === "load"
      ? choice.columns.load === undefined
      : field === "movement" || field === "reps"
        ? choice.columns[field] === read.choice.columns[field]
        : choice[field] === read.choice[field];
  const told = WORDED.flatMap(([field, words]) =>
    read.why[field] && stands(field) ? [`${words}: ${read.why[field]}`] : [],
  );
  const used = new Set(Object.values(choice.columns));
  const out = read.heads.filter((_, at) => !used.has(at));
  if (told.length === 0 && out.length === 0 && read.notes.length === 0) return null;
  return (
    <p className="mt-1 max-w-prose text-sm text-ink-2">
      {told.length > 0 &&
        `${read.remembered ? "Remembered from last time; please check." : "Guessed by the heads and the first rows."} ${told.join("; ")}. `}
      {out.length > 0 && `Left out: ${out.join(", ")}. `}
      {read.notes.length > 0 && `Also: ${read.notes.join("; ")}.`}
    </p>
  );
}

type Field = "movement" | "reps" | "date_order" | "unit" | "load" | "decimal" | "times";

const WORDED: [Field, string][] = [
  ["movement", "Movements"],
  ["reps", "reps"],
  ["date_order", "Dates"],
  ["unit", "loads"],
  ["load", "loads"],
  ["decimal", "decimals"],
  ["times", "times"],
];

/** How days, loads and decimals are written, and whose log it is. */
function Written({ choice, put }: { choice: Choice; put: (part: Partial<Choice>) => void }) {
  const roster = useRoster();
  return (
    <p className="mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-sm">
      <Pick
        label="Dates are written"
        value={choice.date_order}
        options={{ dmy: "day, month, year", mdy: "month, day, year", ymd: "year first" }}
        put={(value) => put({ date_order: value as Choice["date_order"] })}
      />
      <Pick
        label="Loads are in"
        value={choice.unit}
        options={{ kg: "kg", lb: "lb" }}
        put={(value) => put({ unit: value as Choice["unit"] })}
      />
      <Pick
        label="Decimals have a"
        value={choice.decimal}
        options={{ ".": "point", ",": "comma" }}
        put={(value) => put({ decimal: value as Choice["decimal"] })}
      />
      {choice.columns.seconds !== undefined && (
        <Pick
          label="Times are in"
          value={choice.times}
          options={{ s: "seconds", min: "minutes", clock: "minutes and seconds (1:30:00)" }}
          put={(value) => put({ times: value as Choice["times"] })}
        />
      )}
      {choice.dumbbells && (
        <Pick
          label="Dumbbell loads are of"
          value={choice.dumbbells}
          options={{ one: "one dumbbell", pair: "the pair" }}
          put={(value) => put({ dumbbells: value as Choice["dumbbells"] })}
        />
      )}
      {choice.columns.athlete === undefined && (
        <Pick
          label="Whose log"
          value={String(choice.athlete ?? "")}
          put={(value) => put({ athlete: value ? Number(value) : null })}
          options={{
            "": "choose",
            ...Object.fromEntries(
              (roster.data?.athletes ?? []).map((one) => [String(one.id), one.name]),
            ),
          }}
        />
      )}
    </p>
  );
}
