import { useState } from "react";
import { useNavigate } from "react-router";
import { useFloorDay } from "@/api/floor";
import { dropRun, saveRun } from "@/api/outbox";
import { DialogSheet } from "@/frame/DialogSheet";
import { JOINING, type Run, type State } from "./run";

interface Props {
  runs: Run[];
  state: State;
  className?: string;
}

/** Somebody who comes late is let in at the set in hand; what was missed stays open. */
export function LetIn({ runs, state, className = "" }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className={`trail-link mt-2 min-h-11 self-start ${className}`}
        onClick={() => setOpen(true)}
      >
        Let somebody in
      </button>
      {open && <Others runs={runs} state={state} close={() => setOpen(false)} />}
    </>
  );
}

/** Who else has a session today. */
function Others({ runs, state, close }: Omit<Props, "className"> & { close: () => void }) {
  const go = useNavigate();
  const day = useFloorDay(undefined);
  const here = runs.map((one) => one.athlete);
  const others = (day.data?.sessions ?? []).filter((one) => !here.includes(one.athlete));
  const join = async (plan: number) => {
    const plans = [...runs.map((one) => one.plan), plan].join(",");
    await saveRun(plans, { ...state, plans: JOINING });
    // Nobody takes the smaller group up again where it was left: its logs go on here.
    await dropRun(runs.map((one) => one.plan).join(","));
    close();
    void go(`/floor/run?plans=${plans}`, { replace: true });
  };
  return (
    <DialogSheet open close={close} title="Let somebody in">
      {day.error && <p role="alert">{day.error.message}</p>}
      {day.data && others.length === 0 && <p>Nobody else has a session today.</p>}
      <ul>
        {others.map((one) => (
          <li key={one.plan}>
            <button
              type="button"
              className="key-button mt-2 min-h-12 w-full px-4 text-left text-lg"
              onClick={() => void join(one.plan)}
            >
              {one.name}
              <span className="ml-3 text-base text-ink-2">{one.title}</span>
            </button>
          </li>
        ))}
      </ul>
    </DialogSheet>
  );
}
