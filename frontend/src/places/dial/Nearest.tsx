import type { Schemas } from "@/api/client";
import { LevelMark } from "@/marks/LevelMark";
import { settingWords } from "@/marks/scale";
import { shownNotches } from "./nearest";
import type { Dialled } from "./useNotches";

interface Props {
  dialled: Dialled;
  pointer: number;
  all: boolean;
  showAll: (all: boolean) => void;
  turn: (setting: number) => void;
}

/** What turning the dial either way does next, each with its word; the rest on demand. */
export function Nearest({ dialled, pointer, all, showAll, turn }: Props) {
  const shown = shownNotches(dialled, pointer, all);
  const rest = dialled.notches.length - shown.length;
  return (
    <section aria-label="Nearest notches" className="mt-1 mb-3">
      <h2 className="flex items-baseline border-b border-rule pb-0.5 font-semibold">
        {all ? "All notches" : "Nearest notches"}
        {(all || rest > 0) && (
          <button
            type="button"
            className="trail-link ml-auto text-sm font-normal text-ink-2"
            onClick={() => showAll(!all)}
          >
            {all ? "the nearest only" : `all ${dialled.notches.length}`}
          </button>
        )}
      </h2>
      {shown.length === 0 && (
        <p className="text-sm text-ink-2">No finding comes or goes as far as the dial turns.</p>
      )}
      <ul className="text-sm">
        {shown.map((one) => (
          <Line
            key={`${one.total}/${one.effect}/${one.title}/${one.label}`}
            one={one}
            dialled={dialled}
            turn={turn}
          />
        ))}
      </ul>
    </section>
  );
}

interface LineProps {
  one: Schemas["NotchOut"];
  dialled: Dialled;
  turn: (setting: number) => void;
}

function Line({ one, dialled, turn }: LineProps) {
  return (
    <li className="flex items-baseline gap-2 border-b border-hair py-0.5">
      <button
        type="button"
        onClick={() => turn(one.total)}
        className="trail-link figure w-16 shrink-0"
      >
        {settingWords(dialled, one.total)}
      </button>
      <span className="text-ink-2">{one.effect === "clears" ? "clears" : "raises"}</span>
      <span className="min-w-0 truncate" title={one.sentence}>
        {one.title.toLowerCase()}, {one.label}
      </span>
      <span className="ml-auto self-center">
        <LevelMark level={one.level} struck={one.effect === "clears"} />
      </span>
    </li>
  );
}
