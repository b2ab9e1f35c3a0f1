import { type ReactNode, useEffect, useRef } from "react";
import { KEYS, isTyping } from "@/frame/keys";
import type { Asked } from "./asked";

interface Props {
  asked: Asked[];
  /** While one writes, a figure is a figure; where nobody does, nothing is chosen by figures. */
  pen?: boolean;
  go: (at: { line: number; column: number }) => void;
  take: (one: Asked, text: string) => void;
  /** Told where a line is meant as it stands. */
  meant?: (one: Asked) => void;
}

const FIRST = Number(KEYS.firstAnswer.key);

/** Lines that are asked about: each with what else it can be, by number. */
export function Answers({ asked, pen, go, take, meant }: Props) {
  const [first] = asked;
  const stand = (one: Asked) => {
    one.meant?.();
    if (one.meant) meant?.(one);
  };
  const choose = (place: number) => {
    if (!first) return;
    const other = first.others[place];
    if (other !== undefined) take(first, other);
    else if (place === first.others.length) stand(first);
  };
  useDigits(pen === false && first !== undefined, choose);
  return asked.map((one, at) => (
    <Notice
      key={one.key}
      line={one.line}
      message={one.message}
      tone={one.tone}
      go={() => go({ line: one.line, column: one.wrong })}
    >
      {[...one.others, ...(one.meant ? [null] : [])].map((text, place) => (
        <button
          key={text ?? ""}
          type="button"
          className="trail-link ml-3 min-h-6"
          onClick={() => (text === null ? stand(one) : take(one, text))}
        >
          {at === 0 && pen !== undefined && (
            <kbd className="mr-1 font-mono text-xs text-ink-2">{FIRST + place}</kbd>
          )}
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

interface NoticeProps {
  line: number;
  message: string;
  tone: string;
  go: () => void;
  children?: ReactNode;
}

/** A mark in the text that can be gone to. */
export function Notice({ line, message, tone, go, children }: NoticeProps) {
  return (
    <li>
      <button type="button" className="text-left hover:underline" onClick={go}>
        <span className={tone}>Line {line}</span>: {message}
      </button>
      {children}
    </li>
  );
}
