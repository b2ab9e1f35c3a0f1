import { type ReactNode, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { logs } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { SetFields } from "./SetFields";
import { asPlanned } from "@/places/floor/rules";
import { type CoreSet, type Line, type LogSession, rebuilt, sameLine } from "./log";

interface Props {
  place: WeekPlace;
  one: LogSession;
  names: Schemas["MovementName"][];
  /** Change the sets; `how` is given the session as it is when its turn comes. */
  edit: (how: (one: LogSession) => CoreSet[] | null | Promise<CoreSet[] | null>) => void;
}

const planOf = (one: LogSession, line: Line) =>
  line.at === null ? undefined : one.plan?.sets[line.at];
const doneOf = (one: LogSession, line: Line) =>
  line.done_at === null ? undefined : one.log?.session.sets[line.done_at];
/** The round that a planned set stands in, from 1; 0 for one outside of rounds. */
const roundOf = (set: CoreSet | undefined) =>
  Number((set as { round?: unknown } | undefined)?.round ?? 0);
const setsOf = (one: LogSession) => one.log?.session.sets ?? [];

const SHAPES: Record<Line["kind"], string> = {
  "as planned": "bg-ink",
  changed: "bg-ink",
  skipped: "",
  extra: "bg-ink",
  swapped: "bg-ink",
  easier: "bg-ink",
  harder: "bg-ink",
};

/** Set by set: what was planned, what was done, and in words what differed. */
export function LogLines({ place, one, names, edit }: Props) {
  const [error, setError] = useState<{ at: number; says: string } | null>(null);
  const [swapping, setSwapping] = useState<number | null>(null);
  const [inFields, setInFields] = useState<number | null>(null);
  const plans = one.plan?.sets ?? [];
  const change = (where: (now: LogSession, line: Line, at: number) => CoreSet[] | null) => {
    setError(null);
    edit((now) => rebuilt(now.lines, setsOf(now), (line, at) => where(now, line, at)));
  };
  const put = (which: Line, next: (now: LogSession, line: Line) => CoreSet[]) => {
    const same = sameLine(which);
    change((now, line) => (same(line) ? next(now, line) : null));
  };
  const planned = (which: (line: Line) => boolean) =>
    change((now, line) => {
      const plan = planOf(now, line);
      return plan && which(line) ? [asPlanned(plan)] : null;
    });
  /** Whether the words were understood. */
  const amend = (index: number, which: Line, text: string): Promise<boolean> =>
    new Promise((resolve) => {
      setError(null);
      edit(async (now) => {
        const line = now.lines.find(sameLine(which));
        const base = line && (doneOf(now, line) ?? planOf(now, line));
        try {
          if (!base) throw new Error("This set is gone: it was changed meanwhile.");
          const found = await logs.amend(place, { set: asPlanned(base), text });
          resolve(true);
          return rebuilt(now.lines, setsOf(now), (other) =>
            other === line ? Array.from({ length: found.count }, () => found.set) : null,
          );
        } catch (problem) {
          setError({
            at: index,
            says: messageOf(problem),
          });
          resolve(false);
          return null;
        }
      });
    });
  /** One more round behind those of a part: what its last planned round has. */
  const oneMore = (part: string) => {
    const ofPart = plans.filter((set) => (set.part ?? "") === part);
    const last = Math.max(...ofPart.map(roundOf));
    const more = ofPart.filter((set) => roundOf(set) === last).map(asPlanned);
    change((now, line, at) => {
      const end = now.lines.findLastIndex((other) => other.part === part);
      return at === end ? [doneOf(now, line), ...more].filter((set) => set !== undefined) : null;
    });
  };
  const inRounds = (part: string) =>
    plans.some((set) => (set.part ?? "") === part && roundOf(set) > 0);
  const swap = (index: number, which: Line, name: string) => {
    const known = names.find((other) => other.name.toLowerCase() === name.trim().toLowerCase());
    if (!known) {
      setError({ at: index, says: `No movement is called “${name}”.` });
      return;
    }
    setSwapping(null);
    // All sets of the movement from here on that are not done otherwise.
    change((now, other, at) => {
      const set = doneOf(now, other) ?? planOf(now, other);
      const from = now.lines.findIndex(sameLine(which));
      return at >= from && other.movement === which.movement && set
        ? [{ ...asPlanned(set), exercise: known.name, moves: null }]
        : null;
    });
  };
  return (
    <table className="w-full table-fixed text-sm ">
      <colgroup>
        <col className="w-7 max-md:w-5" />
        <col className="w-90 max-md:w-27" />
        <col className="w-44 max-md:w-auto" />
        <col className="max-md:w-0" />
        <col className="w-56 max-md:w-24" />
      </colgroup>
      <thead>
        <tr className="border-b border-rule text-left text-ink-2 italic">
          <td />
          <th scope="col" className="pb-0.5 font-normal">
            planned
          </th>
          <th scope="col" className="pb-0.5 font-normal">
            done, if otherwise
          </th>
          <th scope="col" className="pb-0.5 font-normal max-md:invisible">
            what differed
          </th>
          <td />
        </tr>
      </thead>
      <tbody>
        {one.lines.map((line, index) => {
          const before = one.lines[index - 1];
          const part = !before || before.part !== line.part;
          const movement = part || before.movement !== line.movement;
          // In a circuit movements take turns: a head for each set would double the length.
          const alone = movement && one.lines[index + 1]?.movement !== line.movement;
          const round = roundOf(planOf(one, line));
          const newRound = round > 0 && (part || !before || roundOf(planOf(one, before)) !== round);
          return [
            part && line.part ? (
              <tr key={`${line.part}/${index}`}>
                <th colSpan={5} scope="colgroup" className="pt-3 text-left font-semibold">
                  {line.part}
                  {plans.length > 0 && (
                    <Small act={() => planned((other) => other.part === line.part)}>
                      as planned
                    </Small>
                  )}
                  {inRounds(line.part) && one.log && (
                    <Small act={() => oneMore(line.part)}>one more round</Small>
                  )}
                </th>
              </tr>
            ) : null,
            newRound ? (
              <tr key={`round/${index}`}>
                <td />
                <th
                  colSpan={4}
                  scope="rowgroup"
                  className="pt-1.5 text-left font-normal text-ink-2 italic"
                >
                  round {round}
                </th>
              </tr>
            ) : null,
            movement && !alone ? (
              <tr key={`${line.movement}/${index}`} className="border-t border-hair">
                <td />
                <th colSpan={3} scope="rowgroup" className="pt-1 text-left text-base font-normal">
                  {line.movement}
                </th>
                <td className="text-right">
                  {line.at !== null && (
                    <Small
                      act={() =>
                        planned(
                          (other) => other.part === line.part && other.movement === line.movement,
                        )
                      }
                    >
                      as planned
                    </Small>
                  )}
                  <Small act={() => setSwapping(swapping === index ? null : index)}>swap</Small>
                </td>
              </tr>
            ) : null,
            swapping === index ? (
              <tr key={`swap/${index}`}>
                <td />
                <td colSpan={4}>
                  <form
                    className="flex gap-2 pb-1"
                    onSubmit={(event) => {
                      event.preventDefault();
                      swap(
                        index,
                        line,
                        String(new FormData(event.currentTarget).get("movement") ?? ""),
                      );
                    }}
                  >
                    <input
                      name="movement"
                      list="log-movements"
                      aria-label={`Done instead of ${line.movement}`}
                      placeholder="done instead"
                      className="field w-64 py-0"
                    />
                    <button type="submit" className="key-button py-0">
                      Swap
                    </button>
                  </form>
                </td>
              </tr>
            ) : null,
            <tr
              key={`${line.at}/${line.done_at}`}
              className={`align-baseline ${alone ? "border-t border-hair" : ""}`}
              data-kind={line.kind}
            >
              <td>
                <span
                  aria-hidden="true"
                  className={`inline-block size-2.5 border border-ink ${SHAPES[line.kind]}`}
                />
              </td>
              <td className={line.planned ? "" : "text-ink-2 italic"}>
                {alone && (
                  <span className="mr-2.5 text-base text-ink not-italic max-md:block">
                    {line.movement}
                  </span>
                )}
                <span className={alone ? "text-ink-2" : ""}>{line.planned || "not planned"}</span>
              </td>
              <td className="pr-2">
                <span className="flex items-baseline">
                  <Correction
                    line={line}
                    number={index + 1}
                    amend={(text) => amend(index, line, text)}
                  />
                  <button
                    type="button"
                    aria-label={`Set ${index + 1} in fields`}
                    aria-expanded={inFields === index}
                    title="In fields"
                    className="min-h-5.5 min-w-6 bg-paper text-ink-2 hover:text-ink"
                    onClick={() => setInFields(inFields === index ? null : index)}
                  >
                    {inFields === index ? "▴" : "▾"}
                  </button>
                </span>
                {error?.at === index && (
                  <span role="alert" className="block text-high">
                    {error.says}
                  </span>
                )}
              </td>
              <td
                className={`max-md:invisible max-md:overflow-hidden max-md:whitespace-nowrap ${line.kind === "as planned" ? "text-ink-2" : "font-semibold"}`}
              >
                {line.kind === "as planned" ? "as planned" : !one.log ? "" : line.words}
              </td>
              <td className="text-right whitespace-nowrap max-md:whitespace-normal">
                {line.at !== null && line.kind !== "as planned" && (
                  <Small act={() => planned(sameLine(line))} label={`Set ${index + 1} as planned`}>
                    as planned
                  </Small>
                )}
                {line.done_at !== null && (
                  <Small
                    act={() => put(line, () => [])}
                    label={
                      line.at === null ? `Take set ${index + 1} away` : `Set ${index + 1} not done`
                    }
                  >
                    {line.at === null ? "away" : "not done"}
                  </Small>
                )}
                {alone && (
                  <Small
                    act={() => setSwapping(swapping === index ? null : index)}
                    label={`Swap ${line.movement}`}
                  >
                    swap
                  </Small>
                )}
                {line.done_at !== null && (
                  <Small
                    act={() =>
                      put(line, (now, same) => {
                        const set = doneOf(now, same);
                        return set ? [set, set] : [];
                      })
                    }
                    label={`One more like set ${index + 1}`}
                  >
                    +1
                  </Small>
                )}
              </td>
            </tr>,
            inFields === index ? (
              <tr key={`fields/${index}`}>
                <td />
                <td colSpan={4}>
                  <SetFields
                    set={asPlanned((doneOf(one, line) ?? planOf(one, line)) as CoreSet)}
                    name={`Set ${index + 1}`}
                    take={(set) => {
                      put(line, () => [set]);
                      setInFields(null);
                    }}
                  />
                </td>
              </tr>
            ) : null,
          ];
        })}
      </tbody>
      <caption className="sr-only">Planned and done, set by set</caption>
      <datalist id="log-movements">
        {names.map((name) => (
          <option key={name.name} value={name.name} />
        ))}
      </datalist>
    </table>
  );
}

function Small({ act, label, children }: { act: () => void; label?: string; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      className="trail-link ml-2.5 min-h-6 min-w-6 text-sm font-normal text-ink-2"
      onClick={act}
    >
      {children}
    </button>
  );
}

/** What was done, in a few words; Enter takes it. */
function Correction({
  line,
  number,
  amend,
}: {
  line: Line;
  number: number;
  amend: (text: string) => Promise<boolean>;
}) {
  const [typed, setTyped] = useState("");
  const shown = line.kind === "as planned" ? "" : line.done;
  return (
    <input
      value={typed}
      placeholder={shown || "as planned"}
      aria-label={`Set ${number} of the session, ${line.movement}: done`}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={async () => {
        // What was not understood stays, to be put right.
        if (typed.trim() && (await amend(typed))) setTyped("");
      }}
      onKeyDown={(event) => {
        if (event.key !== "Enter") return;
        event.preventDefault();
        const fields = [
          ...document.querySelectorAll<HTMLInputElement>("input[aria-label$=': done']"),
        ];
        fields[fields.indexOf(event.currentTarget) + 1]?.focus();
        if (!typed.trim()) return;
        event.currentTarget.blur();
      }}
      className={`my-px h-5.5 w-full min-w-0 bg-paper px-1.5 ${shown ? "placeholder:text-ink" : "placeholder:text-ink-2"}`}
    />
  );
}
