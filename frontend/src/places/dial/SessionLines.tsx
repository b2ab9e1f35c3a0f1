import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Heads } from "@/frame/Heads";
import { day, keptWeight, typedWeight, weightUnit } from "@/words";
import { Stepper } from "@/shared/Stepper";
import { Hollow } from "./Hollow";
import type { Proposed, Step } from "./proposed";
import type { CoreSet } from "@/api/client";
import type { Line } from "./draft";

interface Props {
  session: Schemas["DraftSession"];
  words: Schemas["DraftSet"][];
  change: (number: number, change: (line: Line) => Line) => void;
  /** What the proposal in hand changes here. */
  proposed: Proposed | undefined;
  take: (step: Step) => void;
  /** It has a log: it stays as it is planned. */
  logged: boolean;
  /** Ask for a movement: in place of a line, or, without one, for the session. */
  want: (line: number | null, name: string) => void;
}

/** A session of the draft, line by line. */
export function SessionLines({ session, words, change, proposed, take, logged, want }: Props) {
  return (
    <table className="dose-rows mb-5 w-full table-fixed border-b border-rule">
      <colgroup>
        <col />
        <col className="w-28" />
        <col className="w-34" />
        <col className="w-40" />
      </colgroup>
      <thead>
        <tr className="border-b border-rule text-sm text-ink-2 italic">
          <th scope="colgroup" className="py-1 text-left">
            <span className="font-semibold text-ink not-italic">{day(session.date)}</span>{" "}
            <span className="font-normal">{session.title}</span>
            {logged && <span className="font-normal"> logged, stays as planned</span>}
          </th>
          <Heads
            heads={[
              { says: "sets", figure: true, className: "pr-6" },
              ...["reps", "load"].map((says) => ({ says, figure: true, className: "pr-13" })),
            ]}
          />
        </tr>
      </thead>
      <tbody>
        {session.lines.map((line, number) => (
          <LineRow
            key={`${number}/${nameOf(line, words[number])}`}
            line={line}
            word={words[number]}
            change={(how) => change(number, how)}
            step={proposed?.lines.get(number)}
            take={take}
            logged={logged}
            swap={() => want(number, nameOf(line, words[number]))}
          />
        ))}
        {proposed?.added.map((step) => (
          <tr key={step.movement} className="border-b border-hair last:border-b-0">
            <th scope="row" className="py-0.5 pr-3 text-left font-normal text-ink-2 italic">
              {step.movement}
              <Hollow step={step} take={() => take(step)} />
            </th>
            <td colSpan={3} className="truncate text-sm text-ink-2" title={step.reason}>
              {step.reason}
            </td>
          </tr>
        ))}
        {!logged && (
          <tr>
            <td colSpan={4}>
              <button
                type="button"
                className="trail-link py-0.5 text-sm text-ink-2"
                onClick={() => want(null, session.title || day(session.date))}
              >
                Add a movement
              </button>
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

interface LineProps {
  line: Line;
  word: Schemas["DraftSet"] | undefined;
  change: (how: (line: Line) => Line) => void;
  step: Step | undefined;
  take: (step: Step) => void;
  logged: boolean;
  swap: () => void;
}

/** A line: how many sets, and what each of them is. */
function LineRow({ line, word, change, step, take, logged, swap }: LineProps) {
  const set = line.units[0]?.[0];
  if (!set) return null;
  const put = (values: Partial<CoreSet>) =>
    change((now) => ({
      ...now,
      units: now.units.map((unit) => unit.map((one) => ({ ...one, ...values }))),
    }));
  const name = nameOf(line, word);
  const isCircuit = line.kind === "rounds";
  return (
    <tr
      className={`group border-b border-hair last:border-b-0 ${line.count === 0 ? "text-ink-2 line-through" : ""} ${word?.turns ? "" : "text-ink-2"}`}
    >
      <th scope="row" className="py-0.5 pr-3 text-left font-normal">
        <span className="flex items-baseline">
          <span className="truncate" title={word?.text}>
            {name}
            <span className="text-sm text-ink-2"> {isCircuit ? "" : extras(set)}</span>
          </span>
          {step && <Hollow step={step} take={() => take(step)} />}
          {!logged && !isCircuit && (
            <button
              type="button"
              aria-label={`Swap ${name}`}
              className="trail-link ml-2 text-sm text-ink-2 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
              onClick={swap}
            >
              swap
            </button>
          )}
        </span>
        {set.why && (
          <span className="block truncate text-sm text-ink-2 italic" title={set.why}>
            why: {set.why}
          </span>
        )}
      </th>
      <td className="figure">
        <Stepper
          label={`${name}, ${line.kind ?? "sets"}`}
          value={line.count}
          step={1}
          whole
          most={99}
          disabled={logged}
          set={(count) => change((now) => ({ ...now, count }))}
        />
      </td>
      {isCircuit ? (
        <td colSpan={2} className="truncate pr-2 pl-4 text-sm text-ink-2" title={word?.text}>
          rounds of {line.units[0]?.length ?? 0} sets; change them in Write
        </td>
      ) : (
        <>
          <Dose set={set} name={name} put={put} logged={logged} />
          <Load
            set={set}
            name={name}
            step={word ? typedWeight(word.load_step_kg) : 1}
            put={put}
            logged={logged}
          />
        </>
      )}
    </tr>
  );
}

interface CellProps {
  set: CoreSet;
  name: string;
  put: (values: Partial<CoreSet>) => void;
  logged: boolean;
}

function Dose({ set, name, put, logged }: CellProps) {
  return (
    <td className="figure">
      {set.reps != null ? (
        <Stepper
          label={`${name}, reps`}
          disabled={logged}
          value={set.reps}
          step={1}
          whole
          least={Math.max(1, set.partial_reps ?? 0)}
          most={999}
          unit={SIDE[set.sides ?? "both"] ?? ""}
          set={(reps) => put({ reps })}
        />
      ) : (
        <Stepper
          label={`${name}, seconds`}
          disabled={logged}
          value={set.seconds ?? 0}
          step={5}
          most={3600}
          unit="s"
          set={(seconds) => put({ seconds })}
        />
      )}
    </td>
  );
}

function Load({ set, name, step, put, logged }: CellProps & { step: number }) {
  const [adding, setAdding] = useState(false);
  return (
    <td className="figure">
      {set.load_kg || adding ? (
        <>
          {(set.implements ?? 1) > 1 && (
            <span className="text-sm text-ink-2">{set.implements} × </span>
          )}
          <Stepper
            label={`${name}, load in ${weightUnit()}`}
            value={typedWeight(set.load_kg ?? 0)}
            step={step}
            least={(set.load_kg ?? 0) < 0 ? -500 : adding ? 0 : 0.5}
            disabled={logged}
            most={1000}
            unit={weightUnit()}
            set={(load) => put({ load_kg: keptWeight(load), ...entered() })}
          />
        </>
      ) : (
        <button
          type="button"
          aria-label={`Add a load to ${name}`}
          title="Add a load"
          disabled={logged || set.exercise == null}
          className="mr-11 min-h-6 min-w-6 text-ink-2 enabled:hover:bg-band"
          onClick={() => setAdding(true)}
        >
          –
        </button>
      )}
    </td>
  );
}

const nameOf = (line: Line, word: Schemas["DraftSet"] | undefined) =>
  word?.movement ?? line.units[0]?.[0]?.exercise ?? "";

/** The unit that a load was entered in, which it is shown in from then on. */
const entered = (): object => ({ unit: weightUnit() === "lb" ? "lb" : undefined });

const SIDE: Record<string, string> = {
  both: "",
  each: "ea",
  alternating: "alt",
  left: "L",
  right: "R",
};

function extras(set: CoreSet): string {
  return [
    set.warm_up && "warm-up",
    set.tempo && `tempo ${set.tempo}`,
    set.hold_s ? `hold ${set.hold_s} s` : "",
  ]
    .filter(Boolean)
    .join(", ");
}
