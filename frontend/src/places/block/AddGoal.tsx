import { useState } from "react";
import { useChange } from "@/api/changes";
import { goals } from "@/api/goals";
import { MovementInput } from "@/shared/MovementInput";
import { keptWeight, weightUnit } from "@/words";

interface Props {
  athlete: number;
  today: string;
  movements: string[];
  done: () => void;
}

const NOTHING = { movement: "", load: "", amount: "", unit: "reps", by: "" };
const figure = (text: string): number => Number(text.replace(",", "."));

/** A load for reps, reps alone, or seconds, by a day. */
export function AddGoal({ athlete, today, movements, done }: Props) {
  const [said, setSaid] = useState(NOTHING);
  const put = (part: Partial<typeof said>) => setSaid((now) => ({ ...now, ...part }));
  const add = useChange(() =>
    goals.set(athlete, {
      movement: said.movement,
      load_kg: said.load.trim() ? keptWeight(figure(said.load)) : 0,
      reps: said.unit === "reps" ? figure(said.amount) : null,
      seconds: said.unit === "reps" ? null : figure(said.amount),
      by: said.by,
    }),
  );
  const ready =
    said.movement.trim() !== "" &&
    figure(said.amount) > 0 &&
    (!said.load.trim() || figure(said.load) >= 0) &&
    said.by > today;
  return (
    <>
      <form
        className="flex flex-wrap items-end gap-3 py-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) add.mutate(undefined, { onSuccess: done });
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
          Load, {weightUnit()} (if any)
          <input
            value={said.load}
            inputMode="decimal"
            onChange={(event) => put({ load: event.target.value })}
            className="field mt-0.5 block w-28"
          />
        </label>
        <label>
          How many
          <input
            value={said.amount}
            inputMode="decimal"
            onChange={(event) => put({ amount: event.target.value })}
            className="field mt-0.5 block w-20"
          />
        </label>
        <label>
          Of
          <select
            value={said.unit}
            onChange={(event) => put({ unit: event.target.value })}
            className="field mt-0.5 block"
          >
            <option value="reps">reps</option>
            <option value="seconds">seconds</option>
          </select>
        </label>
        <label>
          By
          <input
            type="date"
            value={said.by}
            min={today}
            onChange={(event) => put({ by: event.target.value })}
            className="field mt-0.5 block"
          />
        </label>
        <button type="submit" className="ink-button" disabled={!ready || add.isPending}>
          Set the goal
        </button>
      </form>
      {add.error && (
        <p role="alert" className="text-high">
          {add.error.message}
        </p>
      )}
    </>
  );
}
