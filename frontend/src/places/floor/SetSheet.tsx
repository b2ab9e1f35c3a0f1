import { useState } from "react";
import type { Schemas } from "@/api/client";
import { DialogSheet } from "@/frame/DialogSheet";
import type { CoreSet } from "@/places/log/log";
import { keptWeight, typedWeight, weightUnit } from "@/words";
import { fitting } from "./rules";

interface Props {
  name: string;
  set: CoreSet;
  /** Whether it is done: then it is corrected, and what is chosen is of it alone. */
  isDone: boolean;
  movements: Schemas["FloorMovement"][];
  names: string[];
  /** How many sets of the movement are still to come. */
  toCome: number;
  close: () => void;
  /** Take the set, for the sets to come, too, if `ahead`; null for one that was not done. */
  put: (set: CoreSet | null, ahead: boolean) => void;
  /** As it was when the sheet was opened. */
  back: () => void;
}

const RPES = [6, 7, 7.5, 8, 8.5, 9, 9.5, 10];
const SIDES = ["both", "each", "alternating", "left", "right"] as const;

/** What was otherwise in a set: a tap opens it, and each choice is one more; nothing is to be confirmed. */
export function SetSheet({ name, set, isDone, movements, names, toCome, close, put, back }: Props) {
  const [now, setNow] = useState(set);
  const [ahead, setAhead] = useState(false);
  const movement = movements.find(
    (one) => one.name.toLowerCase() === (now.exercise ?? "").toLowerCase(),
  );
  const take = (next: CoreSet, further: boolean) => {
    setNow(next);
    setAhead(further);
    put(next, further);
  };
  const change = (part: Partial<CoreSet>) => take({ ...now, ...part }, ahead);
  const loads = movement?.loads ?? [];
  const [helped, setHelped] = useState((set.load_kg ?? 0) < 0);
  const load = Math.abs(now.load_kg ?? 0);
  /** Help is a negative load: it is shown, stepped and typed as so much help. */
  const putLoad = (kg: number, unit?: "kg" | "lb") =>
    change({ load_kg: helped ? -kg : kg, ...(unit && { unit: unit === "lb" ? "lb" : undefined }) });
  const help = (on: boolean) => {
    setHelped(on);
    if (load) change({ load_kg: on ? -load : load });
  };
  const step = (by: 1 | -1) => {
    if (helped || loads.length === 0) {
      putLoad(Math.max(0, Math.round((load + by * 2.5) * 100) / 100));
      return;
    }
    const next =
      by > 0 ? loads.find((one) => one > load + 0.01) : loads.findLast((one) => one < load - 0.01);
    if (next !== undefined) putLoad(next);
  };
  const swap = (exercise: string) => {
    const known = names.find((one) => one.toLowerCase() === exercise.trim().toLowerCase());
    if (!known) return;
    const next = movements.find((one) => one.name === known);
    const canBe = helped && next?.can_be_helped !== false;
    setHelped(canBe);
    const kg = helped && !canBe ? 0 : (now.load_kg ?? 0);
    // A station that is taken, a level that is too hard: that holds for the sets to come. What is
    // done already was done as it was: only what somebody says of it is changed.
    take(
      { ...now, exercise: known, moves: null, load_kg: kg && fitting(kg, next?.loads ?? []) },
      isDone ? ahead : toCome > 0,
    );
  };
  return (
    <DialogSheet
      open
      close={close}
      title={`${name}: ${isDone ? "correct the set done, " : ""}${now.exercise ?? "the set"}`}
      wide
    >
      <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
        <Count
          label={now.reps == null ? "Seconds" : "Reps"}
          value={now.reps ?? now.seconds ?? 0}
          put={(value) => change(now.reps == null ? { seconds: value } : { reps: value })}
          step={now.reps == null ? 5 : 1}
          whole
        />
        <Count
          label={`${helped ? "Help" : "Load"}${(now.implements ?? 1) > 1 ? `, ${now.implements} ×` : ""}, ${weightUnit()}`}
          value={typedWeight(load)}
          put={(value) => putLoad(keptWeight(value), weightUnit())}
          less={() => step(-1)}
          more={() => step(1)}
        />
        <Row label="Exertion">
          {RPES.map((rpe) => (
            <Tap
              key={rpe}
              on={now.rpe === rpe}
              act={() => change({ rpe: now.rpe === rpe ? null : rpe })}
            >
              {rpe}
            </Tap>
          ))}
        </Row>
        <Row label="Side">
          {SIDES.map((sides) => (
            <Tap key={sides} on={(now.sides ?? "both") === sides} act={() => change({ sides })}>
              {sides}
            </Tap>
          ))}
        </Row>
        {(helped || movement?.can_be_helped !== false) && (
          <Row label="What it does">
            <Tap on={!helped} act={() => help(false)}>
              adds weight
            </Tap>
            <Tap on={helped} act={() => help(true)}>
              helps
            </Tap>
          </Row>
        )}
        {movement && (
          <Row label="Level">
            <Tap on={false} off={!movement.easier} act={() => swap(movement.easier ?? "")}>
              easier
            </Tap>
            <Tap on={false} off={!movement.harder} act={() => swap(movement.harder ?? "")}>
              harder
            </Tap>
          </Row>
        )}
        <label className="block">
          <span className="text-sm text-ink-2">Instead, by name</span>
          <input
            list="floor-movements"
            className="field h-11 w-full text-lg"
            placeholder={now.exercise ?? ""}
            onChange={(event) => swap(event.target.value)}
          />
          <datalist id="floor-movements">
            {names.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </label>
      </div>
      {movement && movement.instead.length > 0 && (
        <Row label="Instead">
          {movement.instead.slice(0, 8).map((one) => (
            <Tap key={one} on={false} act={() => swap(one)}>
              {one}
            </Tap>
          ))}
        </Row>
      )}
      {toCome > 0 && (
        <label className="mt-3 inline-flex min-h-11 items-center gap-3 text-lg">
          <input
            type="checkbox"
            className="size-5 accent-ink"
            checked={ahead}
            onChange={(event) => take(now, event.target.checked)}
          />
          {toCome === 1 ? "Also in the set to come" : `Also in the ${toCome} sets to come`}
        </label>
      )}
      <div className="sticky -bottom-4 -mx-7 mt-2 -mb-5 flex gap-3 bg-sheet px-7 pt-2 pb-5 max-md:border-t max-md:border-hair">
        <button
          type="button"
          className="ink-button h-12 px-4 text-lg whitespace-nowrap md:px-8"
          onClick={close}
        >
          Close
        </button>
        <button
          type="button"
          className="key-button h-12 px-3 text-lg whitespace-nowrap md:px-6"
          onClick={() => {
            put(null, false);
            close();
          }}
        >
          Not done
        </button>
        <button
          type="button"
          className="key-button ml-auto h-12 px-3 text-lg whitespace-nowrap md:px-6"
          onClick={() => {
            back();
            close();
          }}
        >
          As before
        </button>
      </div>
    </DialogSheet>
  );
}

interface CountProps {
  label: string;
  value: number;
  put: (value: number) => void;
  /** How much a tap is, where it is not the next load of the kit. */
  step?: number;
  less?: () => void;
  more?: () => void;
  whole?: boolean;
}

const MOST = 10_000;

/** A number to tap up and down, or to type. */
function Count({ label, value, put, step = 1, less, more, whole = false }: CountProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const clamp = (next: number) => Math.min(MOST, Math.max(0, next));
  const read = (text: string) => {
    setTyped(text);
    const next = Number(text.trim().replace(",", "."));
    if (text.trim() && Number.isFinite(next) && next >= 0)
      put(clamp(whole ? Math.round(next) : next));
  };
  const tap = (by: number, act?: () => void) => {
    setTyped(null);
    if (act) act();
    else put(clamp(value + by));
  };
  return (
    <div>
      <span className="text-sm text-ink-2">{label}</span>
      <div className="flex items-center gap-3">
        <button
          type="button"
          aria-label={`${label}: less`}
          className="key-button h-12 w-14 text-2xl"
          onClick={() => tap(-step, less)}
        >
          −
        </button>
        <input
          aria-label={label}
          inputMode={whole ? "numeric" : "decimal"}
          className="field h-12 w-24 text-center text-2xl font-semibold"
          value={typed ?? String(value)}
          onFocus={(event) => event.target.select()}
          onChange={(event) => read(event.target.value)}
          onBlur={() => setTyped(null)}
        />
        <button
          type="button"
          aria-label={`${label}: more`}
          className="key-button h-12 w-14 text-2xl"
          onClick={() => tap(step, more)}
        >
          +
        </button>
      </div>
    </div>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div role="group" aria-label={label}>
      <span className="text-sm text-ink-2">{label}</span>
      <div className="flex flex-wrap gap-1.5">{children}</div>
    </div>
  );
}

function Tap({
  on,
  off = false,
  act,
  children,
}: {
  on: boolean;
  off?: boolean;
  act: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      disabled={off}
      onClick={act}
      className={`h-11 min-w-11 border px-2.5 ${on ? "border-ink bg-ink text-sheet" : "border-rule disabled:border-dashed disabled:text-ink-2"}`}
    >
      {children}
    </button>
  );
}
