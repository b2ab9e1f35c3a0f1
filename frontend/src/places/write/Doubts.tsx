import { useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import { KEYS, isTyping } from "@/frame/keys";
import { Notice } from "./Notices";

type Doubt = Schemas["DoubtOut"];

interface Props {
  doubts: Doubt[];
  /** While one writes, a figure is a figure. */
  pen: boolean;
  go: (at: { line: number; column: number }) => void;
  take: (doubt: Doubt, text: string) => void;
  /** It is meant as it stands. */
  meant: (doubt: Doubt) => void;
}

const FIRST = Number(KEYS.firstAnswer.key);

/** Lines that make little sense as they stand: each with what else it can be, by number. */
export function Doubts({ doubts, pen, go, take, meant }: Props) {
  const [first] = doubts;
  const choose = (place: number) => {
    if (!first) return;
    const other = first.others[place];
    if (other !== undefined) take(first, other);
    else if (place === first.others.length) meant(first);
  };
  useDigits(!pen && first !== undefined, choose);
  return doubts.map((doubt, at) => (
    <Notice
      key={`${doubt.line}/${doubt.taken}`}
      line={doubt.line}
      message={doubt.why}
      tone="text-caution"
      go={() => go(doubt)}
    >
      {[...doubt.others, null].map((text, place) => (
        <button
          key={text ?? ""}
          type="button"
          className="trail-link ml-3 min-h-6"
          onClick={() => (text === null ? meant(doubt) : take(doubt, text))}
        >
          {at === 0 && <kbd className="mr-1 font-mono text-xs text-ink-2">{FIRST + place}</kbd>}
          {text ?? "as written"}
        </button>
      ))}
    </Notice>
  ));
}

/** Figures choose while nobody writes. */
function useDigits(on: boolean, choose: (place: number) => void): void {
  const latest = useRef(choose);
  useEffect(() => {
    latest.current = choose;
  });
  useEffect(() => {
    if (!on) return undefined;
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event)) return;
      if (/^[1-9]$/.test(event.key)) {
        event.preventDefault();
        latest.current(Number(event.key) - FIRST);
      }
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [on]);
}
