import { Correction } from "./Correction";
import { Small } from "./Small";
import { type Line, type LogSession, doneOf } from "./log";
import type { Lines } from "./useLines";

interface Props {
  one: LogSession;
  index: number;
  /** Whether its movement has no other set beside it, and so no head. */
  alone: boolean;
  lines: Lines;
  inFields: boolean;
  openFields: () => void;
  openSwap: () => void;
}

/** One set: planned, done if otherwise, what differed, and what can be done about it. */
export function SetRow({ one, index, alone, lines, inFields, openFields, openSwap }: Props) {
  const line = one.lines[index] as Line;
  return (
    <tr className={`align-baseline ${alone ? "border-t border-hair" : ""}`} data-kind={line.kind}>
      <td>
        <span
          aria-hidden="true"
          className={`inline-block size-2.5 border border-ink ${line.kind === "skipped" ? "" : "bg-ink"}`}
        />
      </td>
      <td className={`what ${line.planned ? "" : "text-ink-2 italic"}`}>
        {alone && (
          <span className="mr-2.5 text-base text-ink not-italic max-md:block">{line.movement}</span>
        )}
        <span className={alone ? "text-ink-2" : ""}>{line.planned || "not planned"}</span>
      </td>
      <td className="done pr-2">
        <span className="flex items-baseline">
          <Correction
            line={line}
            number={index + 1}
            amend={(text) => lines.amend(index, line, text)}
          />
          <button
            type="button"
            aria-label={`Set ${index + 1} in fields`}
            aria-expanded={inFields}
            title="In fields"
            className="min-h-5.5 min-w-6 bg-paper text-ink-2 hover:text-ink"
            onClick={openFields}
          >
            {inFields ? "▴" : "▾"}
          </button>
        </span>
        {line.doubt && !lines.meant(line) && <Doubtful line={line} lines={lines} />}
        {lines.error?.at === index && (
          <span role="alert" className="block text-high">
            {lines.error.says}
          </span>
        )}
      </td>
      <td
        className={`max-md:hidden ${line.kind === "as planned" ? "text-ink-2" : "font-semibold"}`}
      >
        {line.kind === "as planned" ? "as planned" : !one.log ? "" : line.words}
      </td>
      <td className="acts text-right whitespace-nowrap">
        <Acts line={line} index={index} alone={alone} lines={lines} openSwap={openSwap} />
      </td>
    </tr>
  );
}

/** A set that makes little sense as it is logged: what else it can have been, or as it stands. */
function Doubtful({ line, lines }: { line: Line; lines: Lines }) {
  return (
    <span role="status" className="block py-0.5 text-caution">
      {line.doubt?.why}
      {line.doubt?.others.map((other) => (
        <button
          key={other.says}
          type="button"
          className="trail-link ml-2 min-h-6"
          onClick={() => lines.put(line, () => [other.set])}
        >
          {other.says}
        </button>
      ))}
      <button type="button" className="trail-link ml-2 min-h-6" onClick={() => lines.mean(line)}>
        as written
      </button>
    </span>
  );
}

interface ActsProps {
  line: Line;
  index: number;
  alone: boolean;
  lines: Lines;
  openSwap: () => void;
}

function Acts({ line, index, alone, lines, openSwap }: ActsProps) {
  return (
    <>
      {line.at !== null && line.kind !== "as planned" && (
        <Small act={() => lines.planned(line)} label={`Set ${index + 1} as planned`}>
          as planned
        </Small>
      )}
      {line.done_at !== null && (
        <Small
          act={() => lines.put(line, () => [])}
          label={line.at === null ? `Remove set ${index + 1}` : `Set ${index + 1} not done`}
        >
          {line.at === null ? "remove" : "not done"}
        </Small>
      )}
      {alone && (
        <Small act={openSwap} label={`Swap ${line.movement}`}>
          swap
        </Small>
      )}
      {line.done_at !== null && (
        <Small
          act={() =>
            lines.put(line, (now, same) => {
              const set = doneOf(now, same);
              return set ? [set, set] : [];
            })
          }
          label={`+1, one more like set ${index + 1}`}
        >
          +1
        </Small>
      )}
    </>
  );
}
