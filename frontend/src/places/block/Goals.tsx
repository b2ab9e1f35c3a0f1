import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { goals as calls, useGoals } from "@/api/goals";
import { May } from "@/frame/May";
import { date, goalText, number, time, weekName, weight } from "@/words";
import { AddGoal } from "./AddGoal";

type Goal = Schemas["GoalOut"];

/** What the athlete works towards: each goal with what it needs and what was gained lately. */
export function Goals({ athlete }: { athlete: number }) {
  const found = useGoals(athlete);
  const [adding, setAdding] = useState(false);
  const [removed, setRemoved] = useState<Goal | null>(null);
  const remove = useChange(async (goal: Goal) => {
    await calls.remove(athlete, goal.id);
    setRemoved(goal);
  });
  const restore = useChange(async (goal: Goal) => {
    await calls.restore(athlete, goal.id);
    setRemoved(null);
  });
  const error = found.error ?? remove.error ?? restore.error;
  const all = found.data?.goals ?? [];
  return (
    <section aria-label="Goals" className="mt-6 max-w-5xl text-sm">
      <h2 className="flex items-baseline gap-4 border-b border-rule pb-0.5 text-base font-semibold">
        Goals
        <May right="plan">
          <button
            type="button"
            className="trail-link ml-auto text-sm font-normal"
            aria-expanded={adding}
            onClick={() => setAdding(!adding)}
          >
            {adding ? "Close" : "Set a goal"}
          </button>
        </May>
      </h2>
      {adding && found.data && (
        <AddGoal
          athlete={athlete}
          today={found.data.today}
          movements={found.data.movements}
          done={() => setAdding(false)}
        />
      )}
      {all.length === 0 && !adding && (
        <p className="py-1 text-ink-2">
          No goals yet. A goal is a load for reps, or reps, or seconds, by a date: it tells you what
          each week has to bring.
        </p>
      )}
      <ul>
        {all.map((goal) => (
          <GoalLine key={goal.id} goal={goal} remove={() => remove.mutate(goal)} />
        ))}
      </ul>
      {removed && (
        <p role="status" className="py-1">
          Goal for {removed.movement} removed.{" "}
          <button type="button" className="trail-link" onClick={() => restore.mutate(removed)}>
            Undo
          </button>
        </p>
      )}
      {error && (
        <p role="alert" className="text-high">
          {error.message}
        </p>
      )}
    </section>
  );
}

const VERDICTS: Record<Goal["verdict"], string> = {
  reached: "",
  "within reach": "",
  "a stretch": "text-caution",
  "not in time": "text-high",
  unknown: "text-ink-2",
};

function GoalLine({ goal, remove }: { goal: Goal; remove: () => void }) {
  return (
    <li className="border-b border-hair py-1.5">
      <div className="flex items-baseline gap-3">
        <span className="font-semibold">
          {goal.movement} {goalText(goal)}
        </span>
        <span className="text-ink-2">by {date(goal.by)}</span>
        <span className={`font-semibold ${VERDICTS[goal.verdict]}`}>{goal.verdict}</span>
        {goal.now !== null && (
          <span className="text-ink-2">
            now {worth(goal, goal.now)} of {worth(goal, goal.target)}
            {goal.kind === "load" && <em> estimated</em>}
          </span>
        )}
        <May right="plan">
          <button
            type="button"
            className="trail-link ml-auto text-ink-2"
            aria-label={`Remove the goal for ${goal.movement}`}
            onClick={remove}
          >
            remove
          </button>
        </May>
      </div>
      <p className="max-w-prose">{goal.sentence}</p>
      {goal.best && (
        <p className="text-ink-2">
          Best of the last weeks: {goal.best}
          {goal.best_day && `, ${date(goal.best_day)}`}.
        </p>
      )}
      {goal.steps.length > 0 && (
        <details>
          <summary className="text-ink-2">Week by week</summary>
          <ol className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
            {goal.steps.map((step) => (
              <li key={step.week} className="w-36">
                <span className="text-ink-2">{weekName(step.week)}</span> {goalText(step)}
              </li>
            ))}
          </ol>
          <p className="mt-1 text-xs text-ink-2">
            The top set of each week, taken to the last good rep; leave two in reserve and it is two
            reps fewer.
          </p>
        </details>
      )}
    </li>
  );
}

/** A value of a goal: kilograms of estimated maximum, reps or seconds. */
function worth(goal: Goal, value: number): string {
  if (goal.kind === "load") return weight(Math.round(value * 2) / 2);
  return goal.kind === "seconds" ? time(value) : `${number(value)} reps`;
}
