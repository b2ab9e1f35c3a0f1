import type { Schemas } from "@/api/client";
import { Heads } from "@/frame/Heads";
import { day, keptWeight, typedWeight, weightUnit } from "@/words";
import { Stepper } from "./Stepper";
import { Hollow } from "./Hollow";
import type { Proposed, Step } from "./proposed";
import type { CoreSet } from "@/places/log/log";
import type { Line } from "./useDialDraft";

interface Props {
  session: Schemas["DraftSession"];
  words: Schemas["DraftSet"][];
  change: (number: number, change: (line: Line) => Line) => void;
  /** What the proposal in hand changes here. */
  proposed: Proposed | undefined;
  take: (step: Step) => void;
}

/** A session of the draft, line by line. */
export function SessionLines({ session, words, change, proposed, take }: Props) {
  return (
    <table className="mb-5 w-full table-fixed border-b border-rule">
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
}

/** A line: how many sets, and what each of them is. */
function LineRow({ line, word, change, step, take }: LineProps) {
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
      className={`border-b border-hair last:border-b-0 ${line.count === 0 ? "text-ink-2 line-through" : ""} ${word?.turns ? "" : "text-ink-2"}`}
    >
      <th scope="row" className="py-0.5 pr-3 text-left font-normal">
        <span className="flex items-baseline">
          <span className="truncate" title={word?.text}>
            {name}
            <span className="text-sm text-ink-2"> {isCircuit ? "" : extras(set)}</span>
          </span>
          {step && <Hollow step={step} take={() => take(step)} />}
        </span>
      </th>
      <td className="figure">
        <Stepper
          label={`${name}, ${line.kind ?? "sets"}`}
          value={line.count}
          step={1}
          whole
          most={99}
          set={(count) => change((now) => ({ ...now, count }))}
        />
      </td>
      {isCircuit ? (
        <td colSpan={2} className="truncate pr-2 pl-4 text-sm text-ink-2" title={word?.text}>
          rounds of {line.units[0]?.length ?? 0} sets; change them in Write
        </td>
      ) : (
        <>
          <Dose set={set} name={name} put={put} />
          <Load set={set} name={name} step={word ? typedWeight(word.load_step_kg) : 1} put={put} />
        </>
      )}
    </tr>
  );
}

interface CellProps {
  set: CoreSet;
  name: string;
  put: (values: Partial<CoreSet>) => void;
}

function Dose({ set, name, put }: CellProps) {
  return (
    <td className="figure">
      {set.reps != null ? (
        <Stepper
          label={`${name}, reps`}
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

function Load({ set, name, step, put }: CellProps & { step: number }) {
  return (
    <td className="figure">
      {set.load_kg ? (
        <>
          {(set.implements ?? 1) > 1 && (
            <span className="text-sm text-ink-2">{set.implements} × </span>
          )}
          <Stepper
            label={`${name}, load in ${weightUnit()}`}
            value={typedWeight(set.load_kg)}
            step={step}
            least={set.load_kg < 0 ? -500 : 0.5}
            most={1000}
            unit={weightUnit()}
            set={(load) => put({ load_kg: keptWeight(load), ...entered() })}
          />
        </>
      ) : (
        <span className="pr-13 text-ink-2">–</span>
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
