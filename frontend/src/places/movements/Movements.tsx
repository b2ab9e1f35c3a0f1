import { useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { movement as calls, useMovements } from "@/api/movements";
import { Failure } from "@/frame/Failure";
import { Heads } from "@/frame/Heads";
import { useKeys } from "@/frame/keys";
import { May } from "@/frame/May";
import { number } from "@/words";
import { Cues } from "./Cues";
import { MovementForm } from "./MovementForm";
import { NameForm } from "./NameForm";
import { NewMovement } from "./NewMovement";
import { plain } from "./typed";
import { type Search, useSearch } from "./useSearch";

type Movement = Schemas["MovementOut"];

/** The movements of the house: found by name, alias, muscle, pattern or kit, and read. */
export function Movements() {
  const movements = useMovements();
  const all = useMemo(() => movements.data?.movements ?? [], [movements.data]);
  const search = useSearch();
  const { put } = search;
  const rows = useMemo(() => search.keeps(all), [search, all]);
  const [editing, setEditing] = useState<"new" | "chosen" | "name" | null>(null);
  const aside = useRef<HTMLElement>(null);
  const isOpen = search.name !== null || editing !== null;
  useEffect(() => {
    // On a phone it stands above the long list, from which it was opened.
    if (isOpen) aside.current?.scrollIntoView({ block: "nearest" });
  }, [isOpen, search.name, editing]);
  const remove = useChange(async (one: Movement) => {
    await calls.remove(one.id);
    put("name", "");
  });
  if (movements.error) return <Failure error={movements.error} />;
  if (!movements.data) return <p className="p-6 text-ink-2">Loading the movements…</p>;
  // Nothing is to be found out by an empty page: the first one is open until another is.
  const named = all.find((one) => one.name === search.name);
  // One that was named a moment ago is on its way: another must not flash up in its place.
  const chosen = named ?? (search.name && movements.isFetching ? undefined : rows[0]);
  const open = (name: string) => {
    setEditing(null);
    remove.reset();
    put("name", name);
  };
  const add = () => {
    remove.reset();
    setEditing("new");
  };
  const closed = (name: string | null) => {
    setEditing(null);
    if (name) put("name", name);
  };
  return (
    <div className="beside grid-cols-[minmax(0,1fr)_23rem]">
      <main className="min-h-0 overflow-auto bg-sheet px-6 pb-8">
        <Head all={all} search={search} shown={rows.length} add={add} />
        <Table rows={rows} chosen={chosen} open={open} />
        {rows.length === 0 && (
          <p className="py-6 text-ink-2">
            No movement matches.{" "}
            <button type="button" className="trail-link" onClick={search.clear}>
              Show all
            </button>
          </p>
        )}
      </main>
      <aside
        ref={aside}
        aria-label="Movement"
        className={`min-h-0 overflow-auto border-l border-rule px-5 pt-4 pb-6 ${
          isOpen ? "max-lg:order-first" : "max-lg:hidden"
        }`}
      >
        {editing === "name" && chosen ? (
          <NameForm key={chosen.id} one={chosen} all={all} close={closed} />
        ) : editing === "new" ? (
          <NewMovement all={movements.data} close={closed} />
        ) : editing && chosen ? (
          <MovementForm key={chosen.id} one={chosen} all={movements.data} close={closed} />
        ) : (
          chosen && (
            <Chosen
              one={chosen}
              open={(name) => put("name", name)}
              change={() => setEditing("chosen")}
              rename={() => setEditing("name")}
              remove={() => remove.mutate(chosen)}
              busy={remove.isPending}
              problem={remove.error}
            />
          )
        )}
      </aside>
    </div>
  );
}

function Choice({
  label,
  value,
  options,
  put,
}: {
  label: string;
  value: string;
  options: string[];
  put: (value: string) => void;
}) {
  return (
    <label className="flex items-baseline gap-1 text-ink-2">
      {label}
      <select
        value={value}
        onChange={(event) => put(event.target.value)}
        className="h-6 w-24 bg-sheet text-ink"
      >
        <option value="">any</option>
        {options.map((one) => (
          <option key={one} value={one}>
            {plain(one)}
          </option>
        ))}
      </select>
    </label>
  );
}

function Details({ one, open }: { one: Movement; open: (name: string) => void }) {
  const level = (name: string | null) =>
    name === null ? (
      "none"
    ) : (
      <button type="button" className="trail-link" onClick={() => open(name)}>
        {name}
      </button>
    );
  const rows: [string, React.ReactNode][] = [
    ["Pattern", `${plain(one.pattern)}${one.side ? `, ${one.side}` : ""}`],
    ["Direct", one.direct.map(plain).join(", ") || "none"],
    ["Indirect", one.indirect.map(plain).join(", ") || "none"],
    [
      "Kind",
      `${one.compound ? "compound" : "isolation"}${one.isometric ? ", isometric" : ""}${one.one_sided ? ", one-sided" : ""}`,
    ],
    [
      "Body weight",
      one.bodyweight_share ? `${number(one.bodyweight_share)} of it is moved` : "not moved",
    ],
    ["Tempo", one.tempo ?? (one.isometric ? "held" : "2-0-1-0, assumed")],
    ["Kit", `${one.kit.join(", ") || "none"}${one.no_kit ? ", which the room does not have" : ""}`],
    ["Also called", one.aliases.join(", ") || "–"],
    ["Easier", level(one.easier)],
    ["Harder", level(one.harder)],
  ];
  return (
    <>
      <h2 className="double-rule mb-2 pb-1 text-lg font-semibold">{one.name}</h2>
      <dl className="grid grid-cols-[6rem_1fr] gap-y-1 text-sm">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-ink-2 italic">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}

interface TableProps {
  rows: Movement[];
  chosen: Movement | undefined;
  open: (name: string) => void;
}

function Table({ rows, chosen, open }: TableProps) {
  return (
    <table className="phone-rows name-rows w-full table-fixed text-sm">
      <colgroup>
        <col className="w-60" />
        <col className="w-36" />
        <col />
        <col className="w-40" />
      </colgroup>
      <thead>
        <tr className="border-b border-rule text-left text-ink-2 italic">
          <Heads
            heads={["Movement", "Pattern", "Muscles, direct and indirect", "Kit"]}
            className="pb-1"
          />
        </tr>
      </thead>
      <tbody>
        {rows.map((one) => (
          <tr
            key={one.name}
            className={`border-b border-hair ${one === chosen ? "bg-band/60" : "hover:bg-band/30"}`}
          >
            <th scope="row" className="truncate py-0.5 pr-3 text-left text-base font-normal">
              <button type="button" className="trail-link" onClick={() => open(one.name)}>
                {one.name}
              </button>
            </th>
            <td className="truncate pr-3">{plain(one.pattern)}</td>
            <td className="pr-3 leading-snug">
              {one.direct.map(plain).join(", ")}{" "}
              <span className="text-ink-2 italic">{one.indirect.map(plain).join(", ")}</span>
            </td>
            <td className="truncate text-ink-2">
              {one.kit.join(", ")}
              {one.no_kit && <span className="text-caution"> not in the kit</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface HeadProps {
  all: Movement[];
  search: Search;
  shown: number;
  add: () => void;
}

/** How many movements are shown, and the ways to find one. */
function Head({ all, search, shown, add }: HeadProps) {
  const field = useRef<HTMLInputElement>(null);
  useKeys({ find: () => field.current?.focus() });
  const choices = (of: (one: Movement) => string[]) => [...new Set(all.flatMap(of))].sort();
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 pt-4 pb-3">
      <h1 className="text-xl font-semibold whitespace-nowrap">
        Movements{" "}
        <span className="font-normal text-ink-2">
          {shown} of {all.length}
        </span>
      </h1>
      <span className="ml-auto flex flex-wrap items-baseline gap-x-4 gap-y-2 text-sm">
        <Choice
          label="Pattern"
          value={search.pattern}
          options={choices((one) => [one.pattern])}
          put={(value) => search.put("pattern", value)}
        />
        <Choice
          label="Muscle"
          value={search.muscle}
          options={choices((one) => [...one.direct, ...one.indirect])}
          put={(value) => search.put("muscle", value)}
        />
        <May right="plan">
          <button type="button" className="key-button whitespace-nowrap" onClick={add}>
            New movement
          </button>
        </May>
        <input
          ref={field}
          type="search"
          value={search.text}
          onChange={(event) => search.setText(event.target.value)}
          placeholder="Find  /"
          aria-label="Find a movement"
          className="field w-40"
        />
      </span>
    </div>
  );
}

interface ChosenProps {
  one: Movement;
  open: (name: string) => void;
  change: () => void;
  rename: () => void;
  remove: () => void;
  busy: boolean;
  problem: Error | null;
}

/** The movement that is open, and what can be done with it. */
function Chosen({ one, open, change, rename, remove, busy, problem }: ChosenProps) {
  return (
    <>
      <Details one={one} open={open} />
      <Cues key={one.id} movement={one} />
      <May right="plan">
        <p className="mt-4 flex flex-wrap gap-3">
          <button type="button" className="key-button" onClick={change}>
            Change
          </button>
          <button type="button" className="key-button whitespace-nowrap" onClick={rename}>
            Rename or merge
          </button>
          <button type="button" className="key-button" disabled={busy} onClick={remove}>
            Remove
          </button>
        </p>
      </May>
      {problem && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-2 text-sm">
          {problem.message}
        </p>
      )}
    </>
  );
}
