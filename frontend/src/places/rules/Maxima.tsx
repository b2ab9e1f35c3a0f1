import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { maxima, useMaxima } from "@/api/maxima";
import { MovementInput } from "@/shared/MovementInput";
import { date, keptWeight, weight, weightUnit } from "@/words";

type Known = Schemas["MaximaOut"];

/** What the athlete can move once: loads in per cent go by it. */
export function Maxima({ athlete }: { athlete: number }) {
  const found = useMaxima(athlete);
  const remove = useChange((id: number) => maxima.remove(athlete, id));
  const typed = found.data?.maxima ?? [];
  const estimates = (found.data?.estimates ?? []).filter(
    (one) => !typed.some((own) => own.movement === one.movement),
  );
  const failed = found.error ?? remove.error;
  return (
    <section aria-labelledby="maxima" className="mb-7 max-w-3xl">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule pb-1">
        <h2 id="maxima" className="text-xl font-semibold">
          Maxima
        </h2>
        <p className="text-sm text-ink-2">
          Loads written in per cent go by the latest typed in; where none is, by the best estimate
          of eight weeks.
        </p>
      </div>
      <Table typed={typed} estimates={estimates} remove={remove.mutate} />
      <Add
        athlete={athlete}
        today={found.data?.today ?? ""}
        movements={found.data?.movements ?? []}
      />
      {failed && (
        <p role="alert" className="mt-2 text-sm text-high">
          {failed.message}
        </p>
      )}
      <p className="mt-1 text-sm text-ink-2">
        A maximum is tried with a spotter or safeties, and only by those whom it suits.
      </p>
    </section>
  );
}

interface TableProps {
  typed: Known["maxima"];
  estimates: Known["estimates"];
  remove: (id: number) => void;
}

/** The maxima typed in, and the estimates of what has none. */
function Table({ typed, estimates, remove }: TableProps) {
  return (
    <table className="w-full text-sm">
      <thead className="text-left text-ink-2">
        <tr>
          <th className="py-1 font-normal">Movement</th>
          <th className="text-right font-normal">One-rep max</th>
          <th className="pl-6 font-normal">Day</th>
          <th className="font-normal">From</th>
          <th>
            <span className="sr-only">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {typed.map((one) => (
          <tr key={one.id} className="border-t border-hair">
            <td className="py-1 font-semibold">{one.movement}</td>
            <td className="figure text-right">{weight(one.kg)}</td>
            <td className="pl-6">{date(one.date)}</td>
            <td>typed in</td>
            <td className="text-right">
              <button
                type="button"
                className="trail-link min-h-6"
                aria-label={`Remove the maximum of ${one.movement}, ${date(one.date)}`}
                onClick={() => remove(one.id)}
              >
                remove
              </button>
            </td>
          </tr>
        ))}
        {estimates.map((one) => (
          <tr key={one.movement} className="border-t border-hair text-ink-2">
            <td className="py-1">{one.movement}</td>
            <td className="figure text-right italic">{weight(Math.round(one.kg))}</td>
            <td className="pl-6">{date(one.date)}</td>
            <td className="italic">estimated</td>
            <td />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface AddProps {
  athlete: number;
  today: string;
  movements: string[];
}

/** One more maximum, typed in. */
function Add({ athlete, today, movements }: AddProps) {
  const [said, setSaid] = useState({ movement: "", load: "", date: "" });
  const add = useChange(() =>
    maxima.add(athlete, {
      movement: said.movement,
      kg: keptWeight(Number(said.load.replace(",", "."))),
      date: said.date || today,
    }),
  );
  const put = (part: Partial<typeof said>) => setSaid((now) => ({ ...now, ...part }));
  const ready = said.movement.trim() !== "" && Number(said.load.replace(",", ".")) > 0;
  return (
    <>
      <form
        className="mt-2 flex flex-wrap items-end gap-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready)
            add.mutate(undefined, {
              onSuccess: () => setSaid({ movement: "", load: "", date: "" }),
            });
        }}
      >
        <label>
          Movement
          <MovementInput
            value={said.movement}
            names={movements}
            put={(movement) => put({ movement })}
            className="w-56"
          />
        </label>
        <label>
          One-rep max, {weightUnit()}
          <input
            value={said.load}
            inputMode="decimal"
            onChange={(event) => put({ load: event.target.value })}
            className="field mt-0.5 block w-28"
          />
        </label>
        <label>
          On
          <input
            type="date"
            value={said.date || today}
            onChange={(event) => put({ date: event.target.value })}
            className="field mt-0.5 block"
          />
        </label>
        <button type="submit" className="key-button" disabled={!ready || add.isPending}>
          Add
        </button>
      </form>
      {add.error && (
        <p role="alert" className="mt-2 text-sm text-high">
          {add.error.message}
        </p>
      )}
    </>
  );
}
