import { useState } from "react";
import { care, useCare } from "@/api/care";
import { useChange } from "@/api/changes";
import { date, keptWeight, weight, weightUnit } from "@/words";

/** Body weight with its days: a set counts with the weight of its day. */
export function Weighings({ athlete }: { athlete: number }) {
  const found = useCare(athlete);
  const [typed, setTyped] = useState("");
  const [day, setDay] = useState<string | null>(null);
  const since = day ?? found.data?.today ?? "";
  const kg = keptWeight(Number(typed.replace(",", ".")));
  const add = useChange(async () => {
    await care.weigh(athlete, { date: since, kg });
    setTyped("");
  });
  const remove = useChange((id: number) => care.unweigh(athlete, id));
  const error = add.error ?? remove.error;
  return (
    <div className="mt-3 text-sm">
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate(undefined);
        }}
      >
        <label>
          <span className="block text-ink-2">Weighs now, {weightUnit()}</span>
          <input
            className="field w-28"
            inputMode="decimal"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <label>
          <span className="block text-ink-2">from</span>
          <input
            type="date"
            className="field"
            value={since}
            onChange={(event) => setDay(event.target.value)}
          />
        </label>
        <button
          type="submit"
          className="key-button"
          disabled={!typed.trim() || !(kg > 0) || !since || add.isPending}
        >
          Add the weight
        </button>
        <p className="max-w-prose flex-1 basis-64 text-ink-2">
          Sets from that day on count with it; those before keep the weight they had.
        </p>
      </form>
      <ul className="mt-1 flex flex-wrap gap-x-6">
        {found.data?.weighings.map((one) => (
          <li key={one.id} className="flex items-baseline gap-2">
            {weight(one.weighing.kg)} <span className="text-ink-2">{date(one.weighing.date)}</span>
            <button
              type="button"
              className="min-h-6 min-w-6 text-ink-2"
              aria-label={`Remove the weight of ${date(one.weighing.date)}`}
              onClick={() => remove.mutate(one.id)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      {error && (
        <p role="alert" className="text-high">
          {error.message}
        </p>
      )}
    </div>
  );
}
