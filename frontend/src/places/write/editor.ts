import {
  type Completion,
  type CompletionContext,
  type CompletionResult,
  acceptCompletion,
  autocompletion,
  closeCompletion,
  completionKeymap,
} from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { type Diagnostic, lintKeymap, setDiagnostics } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { EditorView, drawSelection, highlightActiveLine, keymap, placeholder } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import type { Schemas } from "@/api/client";

/** Words of the notation that stand behind a movement, with what each says. */
const WORDS: Completion[] = [
  { label: "rest 90 s", detail: "after each set" },
  { label: "tempo 3-1-2-0", detail: "lower, pause, lift, pause" },
  { label: "RPE 8", detail: "exertion" },
  { label: "each side", detail: "reps on both sides" },
  { label: "alternating", detail: "sides in turn" },
  { label: "left" }, { label: "right" },
  { label: "warm-up", detail: "left out of the sums" },
  { label: "hold 8 s", detail: "at the end" },
  { label: "half range" }, { label: "to failure" }, { label: "for time" },
  { label: "help 15 kg", detail: "assistance" },
  { label: "band strong" },
  { label: "then", detail: "go on with the movement" },
];

const HEADS: Completion[] = [
  { label: "4 rounds, 35 s on, 25 s off:", detail: "a circuit by the clock" },
  { label: "3 rounds:", detail: "a circuit by reps" },
  { label: "ladder 4, 7, 10:", detail: "one rung a round" },
  { label: "8 bouts, 20 s on, 10 s off:", detail: "short intervals" },
  { label: "warm-up:" }, { label: "main A:" }, { label: "finisher:" }, { label: "cool-down:" },
];

/** Names at the beginning of a line, words of the notation behind them. */
function complete(names: () => Schemas["MovementName"][]) {
  return (context: CompletionContext): CompletionResult | null => {
    const line = context.state.doc.lineAt(context.pos);
    const before = line.text.slice(0, context.pos - line.from);
    const word = /[A-Za-z][A-Za-z-]*$/.exec(before)?.[0] ?? "";
    const name = /^\s*([A-Za-z][^0-9(]*)?$/.exec(before);
    if (name) {
      const written = (name[1] ?? "").trimStart();
      if (!written && !context.explicit) return null;
      const options = names().map((one, at) => ({
        label: one.name, detail: one.uses ? `${one.uses} sets lately` : one.pattern.replaceAll("_", " "),
        boost: -at / 10, apply: `${one.name} `,
      }));
      const known = names().some((one) => written.toLowerCase().startsWith(`${one.name.toLowerCase()} `));
      if (!known) return { from: context.pos - written.length, options: [...options, ...HEADS] };
    }
    if (!word && !context.explicit) return null;
    return { from: context.pos - word.length, options: WORDS };
  };
}

const KEYWORDS = /^(?:tempo|rest|hold|help|band|each side|each|alternating|left|right|warm-?up|to failure|for time|then|low half|high half|half range|half|full|rpe|on|off|between rounds|rounds?|ladder|bouts?|at|of)\b/i;

const notation = StreamLanguage.define<{ head: boolean }>({
  startState: () => ({ head: false }),
  token(stream, state) {
    if (stream.sol()) state.head = /:\s*$/.test(stream.string);
    if (stream.sol() && stream.match(/\s*#.*/)) return "comment";
    if (stream.eatSpace()) return null;
    if (stream.match(/\([^()]*\)/)) return "comment";
    if (stream.match(/\d{4}-\d{2}-\d{2}/)) return "heading";
    if (stream.match(/\d+(?:[-–]\d+){2,3}|\d[\d.,:]*(?:\s*(?:kg|lbs?|s|sec|min)\b)?/i)) return "number";
    // At the beginning of a line these are names: a band row is no band of that level.
    if (/^\s*$/.test(stream.string.slice(0, stream.pos)) && stream.match(/(?:band|half|hold|full|left|right)\b/i)) return null;
    if (stream.match(KEYWORDS)) return state.head ? "heading" : "keyword";
    if (stream.match(/[×x*+/](?=[\s\d])/)) return "operator";
    if (stream.match(/[A-Za-z][\w'-]*/)) return state.head ? "heading" : null;
    stream.next();
    return null;
  },
});

const colours = HighlightStyle.define([
  { tag: tags.number, fontWeight: "600" },
  { tag: tags.keyword, color: "var(--ink-2)" },
  { tag: tags.operator, color: "var(--ink-2)" },
  { tag: tags.comment, color: "var(--ink-2)", fontStyle: "italic" },
  { tag: tags.heading, fontWeight: "600", textDecoration: "underline" },
]);

const looks = EditorView.theme({
  "&": { color: "var(--ink)", backgroundColor: "var(--sheet)", height: "100%", fontSize: "15px" },
  "&.cm-focused": { outline: "none" },
  ".cm-content": { fontFamily: '"Spline Sans Mono", monospace', lineHeight: "1.7", padding: "12px 0 40px", caretColor: "var(--ink)" },
  ".cm-scroller": { overflow: "auto" },
  ".cm-line": { padding: "0 24px" },
  ".cm-cursor": { borderLeftColor: "var(--ink)", borderLeftWidth: "2px" },
  ".cm-activeLine": { backgroundColor: "color-mix(in oklab, var(--band) 45%, transparent)" },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": { backgroundColor: "var(--band) !important" },
  ".cm-placeholder": { color: "var(--ink-2)", whiteSpace: "pre-wrap" },
  ".cm-lintRange-error": { backgroundImage: "none", textDecoration: "underline wavy var(--high) 1.5px", textUnderlineOffset: "4px" },
  ".cm-lintRange-warning": { backgroundImage: "none", textDecoration: "underline wavy var(--caution) 1.5px", textUnderlineOffset: "4px" },
  ".cm-diagnostic-warning": { borderLeft: "4px solid var(--caution)", padding: "4px 10px" },
  ".cm-tooltip": { backgroundColor: "var(--sheet)", color: "var(--ink)", border: "1px solid var(--rule)", fontFamily: '"Source Serif 4 Variable", serif', fontSize: "14px" },
  ".cm-tooltip-autocomplete ul li": { padding: "3px 10px" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { backgroundColor: "var(--ink)", color: "var(--sheet)" },
  ".cm-completionIcon": { display: "none" },
  ".cm-completionDetail": { fontStyle: "italic", opacity: "0.8", marginLeft: "1.5em" },
  ".cm-completionMatchedText": { textDecoration: "none", fontWeight: "600" },
  ".cm-diagnostic-error": { borderLeft: "4px solid var(--high)", padding: "4px 10px" },
});

interface Listening {
  text: string;
  names: () => Schemas["MovementName"][];
  typed: (text: string) => void;
  line: (line: number) => void;
  leave: () => void;
}

/** An editor below a host. It lives in a shadow root: its styles need no inline style then. */
export function openEditor(host: HTMLElement, { text, names, typed, line, leave }: Listening): EditorView {
  const root = host.shadowRoot ?? host.attachShadow({ mode: "open" });
  root.replaceChildren();
  return new EditorView({
    parent: root,
    root,
    state: EditorState.create({
      doc: text,
      extensions: [
        history(),
        drawSelection(),
        highlightActiveLine(),
        notation,
        syntaxHighlighting(colours),
        looks,
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ "aria-label": "The session as text", spellcheck: "false" }),
        placeholder("Back squat 5 × 6 at 57.5 kg, rest 140 s\nBench press 3 × 9–13 at 60 kg, RPE 8"),
        autocompletion({ override: [complete(names)], icons: false }),
        keymap.of([
          { key: "Tab", run: acceptCompletion },
          { key: "Escape", run: (view) => closeCompletion(view) || (leave(), true) },
          ...completionKeymap, ...defaultKeymap, ...historyKeymap, ...lintKeymap,
        ]),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) typed(update.state.doc.toString());
          if (update.docChanged || update.selectionSet)
            line(update.state.doc.lineAt(update.state.selection.main.head).number);
        }),
      ],
    }),
  });
}

/** Underline the mistakes where they are, and loads that cannot be made. */
export function underline(view: EditorView, mistakes: Schemas["MistakeOut"][], warnings: Schemas["MistakeOut"][]): void {
  const { doc } = view.state;
  const mark = (severity: "error" | "warning") => (one: Schemas["MistakeOut"]): Diagnostic => {
    const line = doc.line(one.line);
    const from = Math.min(line.from + one.column - 1, line.to);
    const to = Math.min(from + one.length, line.to);
    return { from: to > from ? from : Math.max(line.from, to - 1), to, severity, message: one.message };
  };
  const there = (one: Schemas["MistakeOut"]) => one.line <= doc.lines;
  const found = [...mistakes.filter(there).map(mark("error")), ...warnings.filter(there).map(mark("warning"))];
  view.dispatch(setDiagnostics(view.state, found));
}
