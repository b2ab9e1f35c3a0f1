import { type ReactNode, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { kit as calls, useKit } from "@/api/kit";
import { unit, useUnit } from "@/api/unit";
import { Failure } from "@/frame/Failure";
import { keptWeight, typedWeight, weight, weightUnit } from "@/words";

type Room = Required<Schemas["Kit"]>;

/** What the room has: Write checks loads against it, and steps go to loads that can be made. */
export function Kit() {
  const found = useKit();
  if (found.error) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Looking round the room…</p>;
  return <Described key={found.data.revision} known={found.data} />;
}

const EMPTY: Room = {
  dumbbells_kg: [],
  kettlebells_kg: [],
  bars_kg: [],
  plates: [],
  stacks: [],
  bands: [],
};

function Described({ known }: { known: Schemas["KitOut"] }) {
  const [room, setRoom] = useState<Room>({ ...EMPTY, ...known.kit });
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const put = (part: Partial<Room>) => setRoom((now) => ({ ...now, ...part }));
  const note = (field: string, problem: string) =>
    setWrong((now) => ({ ...now, [field]: problem }));
  const changed = JSON.stringify(room) !== JSON.stringify({ ...EMPTY, ...known.kit });
  const save = useChange(() => calls.save({ revision: known.revision, kit: room }));
  const broken = Object.values(wrong).some(Boolean);
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-4 pb-10">
      <div className="flex items-baseline gap-4 pb-1">
        <h1 className="text-xl font-semibold">Kit</h1>
        <p className="text-ink-2">
          {known.described
            ? "What the room has. Write warns when a load cannot be made of it."
            : "Nobody has said yet what the room has: until then no load is checked."}
        </p>
        <Shown />
        <span className="ml-auto flex items-baseline gap-3">
          <span role="status" className="text-sm text-ink-2">
            {save.isPending
              ? "storing…"
              : changed
                ? "not stored yet"
                : known.described
                  ? "stored"
                  : ""}
          </span>
          <button
            type="button"
            className="ink-button"
            disabled={!changed || broken || save.isPending}
            onClick={() => save.mutate(undefined)}
          >
            Keep
          </button>
        </span>
      </div>
      {save.error && (
        <p role="alert" className="mb-2 border-l-4 border-high pl-3">
          {save.error.message}
        </p>
      )}
      <div className="grid max-w-5xl grid-cols-2 gap-x-12">
        <Section
          title="Dumbbells"
          says={`${weightUnit()} of one of a pair: 10, 12, 14 or 12-40 by 2`}
        >
          <Loads
            label={`Dumbbells, ${weightUnit()}`}
            value={room.dumbbells_kg}
            put={(dumbbells_kg) => put({ dumbbells_kg })}
            note={(problem) => note("dumbbells", problem)}
          />
        </Section>
        <Section title="Kettlebells" says={`${weightUnit()} of one: 8-28 by 4`}>
          <Loads
            label={`Kettlebells, ${weightUnit()}`}
            value={room.kettlebells_kg}
            put={(kettlebells_kg) => put({ kettlebells_kg })}
            note={(problem) => note("kettlebells", problem)}
          />
        </Section>
        <Section title="Bars" says={`${weightUnit()} of each bar, empty`}>
          <Loads
            label={`Bars, ${weightUnit()}`}
            value={room.bars_kg}
            put={(bars_kg) => put({ bars_kg })}
            note={(problem) => note("bars", problem)}
          />
        </Section>
        <Section
          title="Bands"
          says="levels by name, the lightest first; no kilograms are made up for them"
        >
          <Words label="Bands" value={room.bands as string[]} put={(bands) => put({ bands })} />
        </Section>
        <Section
          title="Plates"
          says="how many pairs of each weight; both ends of a bar get the same"
        >
          <table className="text-sm">
            <thead>
              <tr className="text-left text-ink-2 italic">
                <th className="w-24 font-normal" scope="col">
                  {weightUnit()}
                </th>
                <th className="w-24 font-normal" scope="col">
                  pairs
                </th>
                <td />
              </tr>
            </thead>
            <tbody>
              {(room.plates ?? []).map((plate, at) => (
                // Plates have no name but their place.
                <tr key={at}>
                  <td>
                    <Number
                      label={`Plate ${at + 1}, ${weightUnit()}`}
                      value={typedWeight(plate.kg)}
                      put={(typed) =>
                        put({
                          plates: replaced(room.plates, at, { ...plate, kg: keptWeight(typed) }),
                        })
                      }
                    />
                  </td>
                  <td>
                    <Number
                      label={`Plate ${at + 1}, pairs`}
                      value={plate.pairs}
                      put={(pairs) =>
                        put({ plates: replaced(room.plates, at, { ...plate, pairs }) })
                      }
                    />
                  </td>
                  <td>
                    <Remove
                      what={`plate ${at + 1}`}
                      act={() => put({ plates: without(room.plates, at) })}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <button
            type="button"
            className="trail-link min-h-6 text-sm"
            onClick={() => put({ plates: [...room.plates, { kg: keptWeight(2.5), pairs: 1 }] })}
          >
            Another weight
          </button>
          <Step loads={room.bars_kg.length > 0 ? room.plates.map((one) => one.kg * 2) : []} />
        </Section>
        <Section
          title="Stacks"
          says="machines with a pin: first load, step and top, and the movements done on them"
        >
          {(room.stacks ?? []).map((stack, at) => (
            <div key={at} className="mb-1 border-b border-hair pb-1 text-sm">
              <span className="flex items-baseline gap-2">
                <input
                  aria-label={`Stack ${at + 1}, name`}
                  value={stack.name}
                  onChange={(event) =>
                    put({
                      stacks: replaced(room.stacks, at, { ...stack, name: event.target.value }),
                    })
                  }
                  className="h-6 w-32 border-b border-rule bg-transparent font-semibold"
                />
                {(["least_kg", "step_kg", "top_kg"] as const).map((field) => (
                  <label key={field} className="text-ink-2">
                    {field === "least_kg" ? "from" : field === "step_kg" ? "by" : "to"}{" "}
                    <Number
                      label={`${stack.name}, ${field.replace("_kg", "")} ${weightUnit()}`}
                      value={typedWeight(stack[field])}
                      put={(typed) =>
                        put({
                          stacks: replaced(room.stacks, at, {
                            ...stack,
                            [field]: keptWeight(typed),
                          }),
                        })
                      }
                    />
                  </label>
                ))}
                <Remove what={stack.name} act={() => put({ stacks: without(room.stacks, at) })} />
              </span>
              <Words
                label={`${stack.name}, movements`}
                value={(stack.movements ?? []) as string[]}
                hint="movements, if not those with this kit"
                put={(movements) =>
                  put({ stacks: replaced(room.stacks, at, { ...stack, movements }) })
                }
              />
            </div>
          ))}
          <button
            type="button"
            className="trail-link min-h-6 text-sm"
            onClick={() =>
              put({
                stacks: [
                  ...room.stacks,
                  {
                    name: "new stack",
                    least_kg: keptWeight(5),
                    step_kg: keptWeight(5),
                    top_kg: keptWeight(100),
                    movements: [],
                  },
                ],
              })
            }
          >
            Another stack
          </button>
        </Section>
      </div>
    </main>
  );
}

/** The unit in which weights are shown in every place. */
function Shown() {
  const found = useUnit();
  const choose = useChange((chosen: "kg" | "lb") => unit.choose(chosen));
  return (
    <label className="text-sm whitespace-nowrap text-ink-2">
      Weights are shown in{" "}
      <select
        value={found.data?.unit ?? "kg"}
        disabled={choose.isPending}
        onChange={(event) => choose.mutate(event.target.value as "kg" | "lb")}
        className="h-6 border-b border-rule bg-sheet text-ink"
      >
        <option>kg</option>
        <option>lb</option>
      </select>
    </label>
  );
}

const replaced = <T,>(all: readonly T[], at: number, one: T): T[] =>
  all.map((other, index) => (index === at ? one : other));
const without = <T,>(all: readonly T[], at: number): T[] => all.filter((_, index) => index !== at);

function Section({ title, says, children }: { title: string; says: string; children: ReactNode }) {
  return (
    <section className="border-t border-rule py-3">
      <h2 className="font-semibold">
        {title} <span className="text-sm font-normal text-ink-2">{says}</span>
      </h2>
      <div className="mt-1">{children}</div>
    </section>
  );
}

function Remove({ what, act }: { what: string; act: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Remove ${what}`}
      className="h-6 w-6 text-ink-2 hover:text-ink"
      onClick={act}
    >
      ×
    </button>
  );
}

const RANGE = /^(\d+(?:[.,]\d+)?)\s*[-–]\s*(\d+(?:[.,]\d+)?)\s+by\s+(\d+(?:[.,]\d+)?)$/i;
const value = (text: string) => globalThis.Number(text.replace(",", "."));

/** `10, 12, 14-20 by 2` as numbers; the first piece that is none otherwise. */
function parsed(text: string): number[] | string {
  const loads = new Set<number>();
  for (const piece of text
    .split(/[;\s]*,\s+|[;\n]+\s*|,(?=\S*\s)/)
    .map((one) => one.trim())
    .filter(Boolean)) {
    const range = RANGE.exec(piece);
    const [from = 0, to = 0, by = 0] = range ? range.slice(1).map(value) : [];
    const one = value(piece);
    if (range && by > 0 && to >= from && (to - from) / by <= 200) {
      for (let load = from; load <= to + 1e-9; load += by)
        loads.add(Math.round(load * 1000) / 1000);
    } else if (!range && globalThis.Number.isFinite(one) && one > 0) loads.add(one);
    else return piece;
  }
  return [...loads].sort((a, b) => a - b);
}

function Loads({
  label,
  value: loads,
  put,
  note,
}: {
  label: string;
  value: readonly number[];
  put: (loads: number[]) => void;
  note: (problem: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  return (
    <>
      <input
        aria-label={label}
        value={typed ?? loads.map(typedWeight).join(", ")}
        aria-invalid={problem !== "" || undefined}
        className="field w-full aria-invalid:border-high"
        onChange={(event) => {
          setTyped(event.target.value);
          const next = parsed(event.target.value);
          const says =
            typeof next === "string"
              ? `“${next}” is no load: write weights with commas between, as in 10, 12.5, 14-20 by 2`
              : "";
          setProblem(says);
          note(says);
          if (typeof next !== "string") put(next.map(keptWeight));
        }}
        onBlur={() => {
          if (problem === "") setTyped(null);
        }}
      />
      {problem && (
        <p role="alert" className="text-sm text-high">
          {problem}
        </p>
      )}
    </>
  );
}

function Words({
  label,
  value: words,
  put,
  hint,
}: {
  label: string;
  value: string[];
  put: (words: string[]) => void;
  hint?: string;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      aria-label={label}
      value={typed ?? words.join(", ")}
      placeholder={hint}
      className="field mt-0.5 w-full py-0.5 text-sm"
      onChange={(event) => {
        setTyped(event.target.value);
        put(
          event.target.value
            .split(",")
            .map((one) => one.trim())
            .filter(Boolean),
        );
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

function Number({
  label,
  value: now,
  put,
}: {
  label: string;
  value: number;
  put: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      aria-label={label}
      inputMode="decimal"
      value={typed ?? String(now)}
      className="h-6 w-14 border-b border-rule bg-transparent text-right"
      onChange={(event) => {
        setTyped(event.target.value);
        const next = value(event.target.value);
        if (event.target.value.trim() !== "" && globalThis.Number.isFinite(next) && next > 0)
          put(next);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

/** The smallest step that bar and plates allow. */
function Step({ loads }: { loads: number[] }) {
  return loads.length === 0 ? null : (
    <p className="mt-1 text-sm text-ink-2">
      The smallest step on a bar is {weight(Math.min(...loads))}.
    </p>
  );
}
