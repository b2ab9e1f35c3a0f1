import type { Schemas } from "@/api/client";
import { KEYS } from "@/frame/keys";
import { settingWords } from "@/marks/scale";
import { number } from "@/words";
import { Stepper } from "@/shared/Stepper";
import type { Subject } from "./draft";
import type { Dialled } from "./useNotches";

interface Props {
  dialled: Dialled;
  on: Subject;
  putOn: (on: Subject) => void;
  pointer: number;
  /** Where the week began. */
  start: number;
  turn: (setting: number) => void;
}

const keyOf = (one: Subject): string => `${one.kind}/${one.name ?? ""}`;

const GROUPS: [string, Schemas["SubjectOut"]["kind"][]][] = [
  ["Sets", ["week", "part"]],
  ["One side against the other", ["pair"]],
  ["Every working set", ["load", "rest", "tempo"]],
  ["Sets of a pattern", ["pattern"]],
  ["Sets of a muscle", ["muscle"]],
  ["Sets of a movement", ["movement"]],
];

/** What the dial is put on, and where it stands in figures. */
export function DialHead({ dialled, on, putOn, pointer, start, turn }: Props) {
  const { subjects, step, unit } = dialled;
  const here = subjects.find((one) => keyOf(one) === keyOf(on));
  const ready = keyOf(dialled.on) === keyOf(on);
  return (
    <div className="border-b border-rule pb-2 text-sm">
      <div className="flex items-baseline justify-center gap-2">
        <label className="flex items-baseline gap-2 text-ink-2">
          The dial turns
          <select
            value={keyOf(on)}
            onChange={(event) => {
              const next = subjects.find((one) => keyOf(one) === event.target.value);
              if (next) putOn({ kind: next.kind, name: next.name });
            }}
            onKeyDown={(event) => {
              // Letters choose here; the keys that turn the dial still do.
              const by = { [KEYS.less.key]: -1, [KEYS.more.key]: 1 }[event.key];
              const next = pointer + (by ?? 0);
              if (by === undefined || next < dialled.least || next > dialled.most) return;
              event.preventDefault();
              turn(next);
            }}
            className="h-7 max-w-60 border-b border-rule bg-transparent text-ink"
          >
            {!here && <option value={keyOf(on)}>{on.name || "sets of the week"}</option>}
            {GROUPS.map(([title, kinds]) => {
              const own = subjects.filter((one) => kinds.includes(one.kind));
              return (
                own.length > 0 && (
                  <optgroup key={title} label={title}>
                    {own.map((one) => (
                      <option key={keyOf(one)} value={keyOf(one)}>
                        {one.label}
                      </option>
                    ))}
                  </optgroup>
                )
              );
            })}
          </select>
        </label>
      </div>
      <div className="mt-1 flex items-baseline justify-center gap-2 text-base">
        <Stepper
          label={capital(here?.label ?? "sets of the week")}
          value={ready ? pointer * step : 0}
          step={step}
          whole={unit === "sets" || unit === "pair"}
          least={dialled.least * step}
          most={dialled.most * step}
          disabled={!ready}
          set={(value) => turn(Math.round(value / step))}
        />
        <span>{READS[unit]}</span>
        <span className="text-ink-2">
          {ready && away(dialled, pointer, on.kind === "week" ? start : dialled.start)}
        </span>
      </div>
    </div>
  );
}

const READS = { sets: "sets", pair: "sets", "%": "%", s: "s" };

/** How far it was turned. */
function away(dialled: Dialled, pointer: number, start: number): string {
  const { unit, whole } = dialled;
  const asItWas = pointer === start;
  if (unit === "pair") {
    const beside = `against ${(whole ?? 0) - pointer}`;
    return asItWas
      ? `${beside}, as at the start`
      : `${beside}; it was ${settingWords(dialled, start)}`;
  }
  if (unit !== "sets") return asItWas ? "as it is" : "";
  if (asItWas) return "as at the start";
  const by = `${pointer > start ? "+" : "−"}${number(Math.abs(pointer - start))}`;
  return `${by}, ${Math.round((pointer / Math.max(1, start)) * 100)} % of the start`;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
