import { type ReactNode, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { useInHand } from "@/api/inHand";
import { kit as calls, useKit } from "@/api/kit";
import { house, useHouse } from "@/api/house";
import { unit, useUnit } from "@/api/unit";
import { Failure } from "@/frame/Failure";
import { May } from "@/frame/May";
import { ReadOnly } from "@/frame/ReadOnly";
import { OtherVersion, differencesOf } from "@/frame/OtherVersion";
import { weightUnit } from "@/words";
import { Plates } from "./Plates";
import { Stacks } from "./Stacks";
import { Loads, Words } from "./fields";
import { EMPTY, type Room } from "./room";

/** What the room has: Write checks loads against it, and steps go to loads that can be made. */
export function Kit() {
  const found = useKit();
  if (found.error) return <Failure error={found.error} />;
  if (!found.data) return <p className="p-6 text-ink-2">Loading the kit…</p>;
  return <Described known={found.data} />;
}

const LOADS = [
  { field: "dumbbells_kg", title: "Dumbbells", says: "of one of a pair: 10, 12, 14 or 12-40 by 2" },
  { field: "kettlebells_kg", title: "Kettlebells", says: "of one: 8-28 by 4" },
  { field: "bars_kg", title: "Bars", says: "of each bar, empty" },
] as const;

function Described({ known }: { known: Schemas["KitOut"] }) {
  const room = useInHand<Room>(
    { value: { ...EMPTY, ...known.kit }, revision: known.revision },
    "kit",
  );
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const put = (part: Partial<Room>) => room.put((now) => ({ ...now, ...part }));
  const save = useChange(async () => {
    const { revision } = await calls.save({ revision: room.base.revision, kit: room.inHand });
    room.take({ value: room.inHand, revision });
  });
  const broken = Object.values(wrong).some(Boolean);
  return (
    <main className="min-h-0 flex-1 overflow-auto bg-sheet px-6 pt-4 pb-10">
      <ReadOnly says="Coaches change the kit.">
        <div className="flex flex-wrap items-baseline gap-x-4 pb-1">
          <h1 className="text-xl font-semibold">Kit</h1>
          <p className="text-ink-2">
            {known.described
              ? "What the room has. Write warns when a load cannot be made of it."
              : "No kit entered yet: until then, loads are not checked."}
          </p>
          <Called />
          <Shown />
          <span className="ml-auto flex items-baseline gap-3">
            <span role="status" className="text-sm text-ink-2">
              {save.isPending
                ? "saving…"
                : room.changed
                  ? "not saved yet"
                  : known.described && "saved"}
            </span>
            <May right="plan">
              <button
                type="button"
                className="ink-button"
                disabled={!room.changed || broken || save.isPending}
                onClick={() => save.mutate(undefined)}
              >
                Save
              </button>
            </May>
          </span>
        </div>
        {save.error && !room.isOlder && (
          <p role="alert" className="mb-2 border-l-4 border-high pl-3">
            {save.error.message}
          </p>
        )}
        {room.isOlder && (
          <OtherVersion
            what="The kit was"
            differences={differencesOf({ ...room.stored.value }, { ...room.inHand }, (field) =>
              field.replace("_kg", ", kg").replaceAll("_", " "),
            )}
            takeTheirs={room.discard}
            keepMine={room.insist}
          />
        )}
        <div className="grid max-w-5xl grid-cols-2 gap-x-12 max-md:grid-cols-1 [&>*]:min-w-0">
          {LOADS.map(({ field, title, says }) => (
            <Section key={field} title={title} says={`${weightUnit()} ${says}`}>
              <Loads
                label={`${title}, ${weightUnit()}`}
                value={room.inHand[field]}
                put={(loads) => put({ [field]: loads })}
                note={(problem) => setWrong((now) => ({ ...now, [field]: problem }))}
              />
            </Section>
          ))}
          <Section
            title="Bands"
            says="levels by name, the lightest first; no kilograms are made up for them"
          >
            <Words
              label="Bands"
              value={room.inHand.bands as string[]}
              put={(bands) => put({ bands })}
            />
          </Section>
          <Section
            title="Plates"
            says="how many pairs of each weight; both ends of a bar get the same"
          >
            <Plates room={room.inHand} put={put} />
          </Section>
          <Section
            title="Stacks"
            says="machines with a pin: first load, step and top, and the movements done on them"
          >
            <Stacks room={room.inHand} put={put} />
          </Section>
          <Sensor on={room.inHand.sensor} put={(sensor) => put({ sensor })} />
        </div>
      </ReadOnly>
    </main>
  );
}

/** What the house is called. */
function Called() {
  const found = useHouse();
  const [typed, setTyped] = useState<string | null>(null);
  const name = useChange((wanted: string) => house.name(wanted));
  return (
    <label className="text-sm whitespace-nowrap text-ink-2">
      Name of the house{" "}
      <input
        value={typed ?? found.data?.name ?? ""}
        maxLength={120}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && typed !== found.data?.name) name.mutate(typed);
          setTyped(null);
        }}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        className="h-6 w-44 border-b border-rule bg-sheet text-ink"
      />
    </label>
  );
}

/** The unit in which weights are shown in every place. */
function Shown() {
  const found = useUnit();
  const choose = useChange((chosen: "kg" | "lb") => unit.choose(chosen));
  return (
    <label className="text-sm whitespace-nowrap text-ink-2">
      Show weights in{" "}
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

/** A sensor of reps is shown on the floor only where there is one. */
const Sensor = ({ on, put }: { on: boolean; put: (on: boolean) => void }) => (
  <Section title="Sensor" says="counts reps and their tempo on the floor">
    <label className="flex min-h-8 items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-ink"
        checked={on}
        onChange={(event) => put(event.target.checked)}
      />
      Use a sensor on the floor. The one that comes with Dial Back is simulated, for trying it out.
    </label>
  </Section>
);
