import { useState } from "react";
import type { Schemas } from "@/api/client";
import type { WeekPlace } from "@/api/place";
import { KEYS, useKeys } from "@/frame/keys";
import { Folded } from "./Folded";
import type { Sessions } from "./draft";
import { gains } from "./gains";
import { useNextSteps } from "./useNextSteps";

type Step = Schemas["NextStepOut"];
type Way = Schemas["WayOut"];
export type TakeNext = (steps: Schemas["TakeNext"][]) => Promise<void>;

interface Props {
  place: WeekPlace;
  sessions: Sessions;
  take: TakeNext;
}

/** What each movement does next, from its last sessions: a load of the kit, or another way on. */
export function NextSteps({ place, sessions, take }: Props) {
  const [open, setOpen] = useState(false);
  const { steps, error } = useNextSteps(place, sessions, open);
  useKeys({ nextSteps: () => setOpen((now) => !now) });
  return (
    <Folded
      label="Next steps"
      title="Next steps"
      beside={<span className="text-sm text-ink-2">of the movements</span>}
      opens="Show"
      keyName={KEYS.nextSteps.key}
      open={open}
      toggle={() => setOpen(!open)}
      error={error}
    >
      {steps && (
        <>
          {steps.length === 0 && (
            <p className="mt-2 text-sm text-ink-2">
              No movement is due for a step: none reached the top of its range, and none fell below
              it twice. A lighter week keeps its loads.
            </p>
          )}
          <ul className="mt-1 text-sm">
            {steps.map((step) => (
              <StepLine
                key={`${step.movement}/${step.before}`}
                step={step}
                take={(way) =>
                  void take([{ movement: step.movement, before: step.before, kind: way.kind }])
                }
              />
            ))}
          </ul>
          {steps.length > 1 && (
            <button
              type="button"
              className="ink-button mt-2"
              onClick={() =>
                void take(
                  steps.flatMap(({ movement, before, ways }) =>
                    ways.slice(0, 1).map(({ kind }) => ({ movement, before, kind })),
                  ),
                )
              }
            >
              Take the first of all {steps.length}
            </button>
          )}
        </>
      )}
    </Folded>
  );
}

function StepLine({ step, take }: { step: Step; take: (way: Way) => void }) {
  const [first, ...others] = step.ways;
  if (!first) return null;
  return (
    <li className="border-b border-hair py-1">
      <div className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1">
          <span className="font-semibold">{step.movement}</span>
          {step.course === "down" && <span className="ml-2 text-caution">back a step</span>}
          <span className="block">
            {step.before} → <span className="font-semibold">{first.says}</span>
          </span>
        </span>
        <button
          type="button"
          className="key-button"
          aria-label={`Take ${first.says} for ${step.movement}`}
          title={first.told}
          onClick={() => take(first)}
        >
          Take
        </button>
      </div>
      <p className="text-ink-2">
        {step.because} The week: {gains(first.effect)}.
      </p>
      {others.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-3 text-ink-2">
          or
          {others.map((way) => (
            <button
              key={way.kind}
              type="button"
              className="trail-link min-h-6"
              aria-label={`Take ${way.says} for ${step.movement}`}
              title={`${way.told}: ${gains(way.effect)}`}
              onClick={() => take(way)}
            >
              {way.says}
            </button>
          ))}
        </p>
      )}
    </li>
  );
}
