import { useState } from "react";
import { asPlanned } from "@/shared/coreRules";
import { SetFields } from "./SetFields";
import { SetRow } from "./SetRow";
import { Small } from "./Small";
import type { CoreSet } from "@/api/client";
import { type Line, type LogSession, doneOf, headsOf, inRounds, planOf } from "./log";
import type { Lines } from "./useLines";

interface Props {
  one: LogSession;
  index: number;
  lines: Lines;
}

/** A set of the log, below the heads that it begins, with what is open of it. */
export function LineRows({ one, index, lines }: Props) {
  const [swapping, setSwapping] = useState(false);
  const [inFields, setInFields] = useState(false);
  const line = one.lines[index] as Line;
  const heads = headsOf(one, index);
  const openSwap = () => setSwapping((now) => !now);
  return (
    <>
      {heads.part && <PartHead one={one} part={heads.part} lines={lines} />}
      {heads.round !== null && (
        <tr>
          <td />
          <th
            colSpan={4}
            scope="rowgroup"
            className="pt-1.5 text-left font-normal text-ink-2 italic"
          >
            round {heads.round}
          </th>
        </tr>
      )}
      {heads.movement && <MovementHead line={line} lines={lines} swap={openSwap} />}
      {swapping && (
        <Swap
          line={line}
          swap={(name) => {
            if (lines.swap(index, line, name)) setSwapping(false);
          }}
        />
      )}
      <SetRow
        one={one}
        index={index}
        alone={heads.alone}
        lines={lines}
        inFields={inFields}
        openFields={() => setInFields((now) => !now)}
        openSwap={openSwap}
      />
      {inFields && (
        <tr>
          <td />
          <td colSpan={4}>
            <SetFields
              set={asPlanned((doneOf(one, line) ?? planOf(one, line)) as CoreSet)}
              name={`Set ${index + 1}`}
              take={(set) => {
                lines.put(line, () => [set]);
                setInFields(false);
              }}
            />
          </td>
        </tr>
      )}
    </>
  );
}

function PartHead({ one, part, lines }: { one: LogSession; part: string; lines: Lines }) {
  return (
    <tr>
      <th colSpan={5} scope="colgroup" className="pt-3 text-left font-semibold">
        {part}
        {one.plan && one.plan.sets.length > 0 && (
          <Small act={() => lines.restPlanned((other) => other.part === part)}>as planned</Small>
        )}
        {inRounds(one, part) && one.log && (
          <Small act={() => lines.oneMore(part)}>one more round</Small>
        )}
      </th>
    </tr>
  );
}

function MovementHead({ line, lines, swap }: { line: Line; lines: Lines; swap: () => void }) {
  return (
    <tr className="border-t border-hair">
      <td className="max-md:hidden" />
      <th colSpan={3} scope="rowgroup" className="what pt-1 text-left text-base font-normal">
        {line.movement}
      </th>
      <td className="acts text-right">
        {line.at !== null && (
          <Small
            act={() =>
              lines.restPlanned(
                (other) => other.part === line.part && other.movement === line.movement,
              )
            }
          >
            as planned
          </Small>
        )}
        <Small act={swap}>swap</Small>
      </td>
    </tr>
  );
}

function Swap({ line, swap }: { line: Line; swap: (name: string) => void }) {
  return (
    <tr>
      <td />
      <td colSpan={4}>
        <form
          className="flex gap-2 pb-1"
          onSubmit={(event) => {
            event.preventDefault();
            swap(String(new FormData(event.currentTarget).get("movement") ?? ""));
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
  );
}
