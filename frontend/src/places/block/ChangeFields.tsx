import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Stepper } from "@/shared/Stepper";

export type Change = Required<Schemas["ChangeBody"]>;

export const NONE: Change = { load: 0, reps: 0, sets: 0, rest_s: 0, tempo_s: 0 };

/** What becomes more each week: load, reps, sets, slower lowering, rest (or less of it). */
export function ChangeFields({ value, put }: { value: Change; put: (value: Change) => void }) {
  const [minus, setMinus] = useState(value.rest_s < 0);
  const set = (part: Partial<Change>) => put({ ...value, ...part });
  const rest = Math.abs(value.rest_s);
  return (
    <>
      <span className="flex items-baseline">
        load +{" "}
        <Stepper
          label="Load, per cent a week"
          value={Math.round(value.load * 1000) / 10}
          step={0.5}
          most={20}
          set={(next) => set({ load: next / 100 })}
        />{" "}
        %
      </span>
      <span className="flex items-baseline">
        reps +{" "}
        <Stepper
          label="Reps a week"
          value={value.reps}
          step={1}
          most={10}
          whole
          set={(reps) => set({ reps })}
        />
      </span>
      <span className="flex items-baseline">
        sets +{" "}
        <Stepper
          label="Sets a week"
          value={value.sets}
          step={1}
          most={5}
          whole
          set={(sets) => set({ sets })}
        />
      </span>
      <span className="flex items-baseline">
        lowering slower by{" "}
        <Stepper
          label="Lowering, seconds a week"
          value={value.tempo_s}
          step={0.5}
          most={5}
          set={(tempo_s) => set({ tempo_s })}
        />{" "}
        s
      </span>
      <span className="flex items-baseline">
        rest
        <button
          type="button"
          className="mx-1 h-6 w-6 border border-rule"
          aria-label={minus ? "Rest gets shorter" : "Rest gets longer"}
          onClick={() => {
            setMinus(!minus);
            set({ rest_s: minus ? rest : -rest });
          }}
        >
          {minus ? "−" : "+"}
        </button>
        <Stepper
          label="Rest, seconds a week"
          value={rest}
          step={5}
          most={300}
          set={(next) => set({ rest_s: minus ? -next : next })}
        />{" "}
        s
      </span>
    </>
  );
}
