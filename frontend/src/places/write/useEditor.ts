import type { EditorView } from "@codemirror/view";
import { useCallback, useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { useMovementNames, useNotation } from "@/api/write";
import { type Vocabulary, openEditor, recolour, showReadings, underline } from "./editor";

interface Writing {
  /** The text in hand, with which the editor opens: after a time in the form, too. */
  text: string;
  answer: Schemas["Written"] | null;
  /** What of it is asked about. */
  doubts: Schemas["DoubtOut"][];
  /** Whether the text is written in the editor, and not in the form. */
  isOpen: boolean;
  typed: (text: string) => void;
  line: (line: number) => void;
  leave: () => void;
}

/** What of a text has to change, and no more: the cursor stays where it was. */
function difference(old: string, whole: string) {
  let from = 0;
  while (from < Math.min(old.length, whole.length) && old[from] === whole[from]) from += 1;
  let end = 0;
  const most = Math.min(old.length, whole.length) - from;
  while (end < most && old[old.length - 1 - end] === whole[whole.length - 1 - end]) end += 1;
  return { from, to: old.length - end, insert: whole.slice(from, whole.length - end) };
}

/** The editor in its host: what is typed, the marks of the answer, and the ways to write into it. */
export function useEditor(
  place: WeekPlace,
  { text, answer, doubts, isOpen, typed, line, leave }: Writing,
) {
  const names = useMovementNames(place);
  const notation = useNotation();
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const known = useRef<Vocabulary>({ names: [], notation: null });
  const movements = names.data?.movements;
  useEffect(() => {
    known.current = { names: movements ?? [], notation: notation.data ?? null };
    if (view.current && notation.data) recolour(view.current, () => known.current);
  }, [movements, notation.data]);
  const inHand = useRef(text);
  // An editor made anew, because somebody else listens, would lose the key that is under way.
  const calls = useRef({ typed, line, leave });
  useEffect(() => {
    inHand.current = text;
    calls.current = { typed, line, leave };
  });
  useEffect(() => {
    if (!isOpen || !host.current) return undefined;
    const editor = openEditor(host.current, {
      text: inHand.current,
      vocabulary: () => known.current,
      typed: (now) => calls.current.typed(now),
      line: (at) => calls.current.line(at),
      leave: () => calls.current.leave(),
    });
    view.current = editor;
    editor.focus();
    return () => {
      view.current = null;
      editor.destroy();
    };
  }, [isOpen]);
  useEffect(() => {
    if (!view.current || !answer) return;
    const asked = doubts.map((one) => ({ ...one, message: one.why }));
    underline(view.current, answer.mistakes, [...answer.restricted, ...answer.kit, ...asked]);
    showReadings(view.current, answer);
  }, [answer, doubts, isOpen]);
  // What writes says whether there is an editor to write into.
  const write = useCallback((key: string) => {
    const editor = view.current;
    editor?.focus();
    editor?.dispatch(editor.state.replaceSelection(key));
    return editor !== null;
  }, []);
  /** The whole text anew, as an edit that can be undone. */
  const replace = useCallback((whole: string) => {
    const editor = view.current;
    if (editor) editor.dispatch({ changes: difference(editor.state.doc.toString(), whole) });
    return editor !== null;
  }, []);
  const goTo = useCallback((at: { line: number; column: number }) => {
    const editor = view.current;
    if (!editor || at.line > editor.state.doc.lines) return;
    const from = editor.state.doc.line(at.line).from;
    editor.dispatch({
      selection: { anchor: Math.min(from + at.column - 1, editor.state.doc.length) },
      scrollIntoView: true,
    });
    editor.focus();
  }, []);
  const focus = useCallback(() => view.current?.focus(), []);
  return { host, movements: movements ?? [], notation: notation.data, write, replace, goTo, focus };
}
