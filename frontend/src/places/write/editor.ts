import {
  type Completion,
  type CompletionContext,
  type CompletionResult,
  acceptCompletion,
  autocompletion,
  closeCompletion,
  completionStatus,
  moveCompletionSelection,
  selectedCompletionIndex,
  setSelectedCompletion,
  startCompletion,
} from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap, insertNewline } from "@codemirror/commands";
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { type Diagnostic, lintKeymap, setDiagnostics } from "@codemirror/lint";
import { Compartment, EditorState, type Range, StateEffect, StateField } from "@codemirror/state";
import {
  Decoration,
  type DecorationSet,
  EditorView,
  WidgetType,
  drawSelection,
  highlightActiveLine,
  keymap,
  placeholder,
} from "@codemirror/view";
import { tags } from "@lezer/highlight";
import type { Schemas } from "@/api/client";

/** What the editor knows of the language: the words of the house, and the movements. */
export interface Vocabulary {
  names: Schemas["MovementName"][];
  notation: Schemas["NotationOut"] | null;
}

/** What the notation's own words become while they are typed; empty until they are known. */
const WORD_LIMIT = 24;

/**
 * Names at the beginning of a line, words of the notation behind them. Nothing is offered where a
 * complete word or unit ends: Enter and Tab are then what they are everywhere.
 */
export function complete(vocabulary: () => Vocabulary) {
  const source = (context: CompletionContext): CompletionResult | null => {
    const { names, notation } = vocabulary();
    const line = context.state.doc.lineAt(context.pos);
    const before = line.text.slice(0, context.pos - line.from);
    const begun = /^\s*([A-Za-z][^0-9(:]*)?$/.exec(before);
    if (begun) {
      const written = (begun[1] ?? "").trimStart();
      if (!written && !context.explicit) return null;
      const found = beginnings(written, names, notation?.heads ?? []);
      if (found) return result(context.pos - written.length, found);
    }
    // A reason is the coach's own words.
    if (/(?:\bbecause|\bwhy\s*:)\s/i.test(before)) return null;
    const word = /[A-Za-z][A-Za-z-]*$/.exec(before)?.[0] ?? "";
    if (!notation || (!word && !context.explicit)) return null;
    return result(context.pos - word.length, offered(word, notation));
  };
  // Found anew with each letter, at once: an arrow right behind the last one is the list's.
  const result = (from: number, options: Completion[]): CompletionResult | null =>
    options.length
      ? { from, options, filter: false, update: (_now, _from, _to, context) => source(context) }
      : null;
  return source;
}

/** Names that go on with what is written, word by word; null behind a name that is complete. */
function beginnings(
  written: string,
  names: Schemas["MovementName"][],
  heads: Schemas["NotationWord"][],
): Completion[] | null {
  const typed = plain(written);
  if (names.some((one) => typed.startsWith(`${plain(one.name)} `))) return null;
  if (names.some((one) => typed === plain(one.name))) return [];
  const words = typed.split(" ").filter(Boolean);
  const goesOn = (text: string) => {
    const own = plain(text).split(" ");
    return words.every((word) => own.some((one) => one.startsWith(word)));
  };
  return [
    ...names
      .filter((one) => goesOn(one.name))
      .slice(0, WORD_LIMIT)
      .map((one) => ({
        label: one.name,
        detail: one.no_kit
          ? "not in the kit"
          : one.uses
            ? `${one.uses} sets lately`
            : one.pattern.replaceAll("_", " "),
        apply: `${one.name} `,
      })),
    ...heads
      .filter((one) => plain(one.text).startsWith(typed))
      .map((one) => ({ label: one.text, detail: one.says })),
  ];
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[-\s]+/g, " ")
    .trimStart();

/** Words of the notation that go on with what is written, and are not whole already. */
function offered(word: string, notation: Schemas["NotationOut"]): Completion[] {
  const typed = word.toLowerCase();
  if (notation.whole.includes(typed)) return [];
  const found = notation.words.filter((one) => one.text.toLowerCase().startsWith(typed));
  const whole = found.some(
    (one) => one.text.toLowerCase() === typed || one.text.toLowerCase().startsWith(`${typed} side`),
  );
  return whole ? [] : found.map((one) => ({ label: one.text, detail: one.says }));
}

/** Colours from the patterns of the notation's words, the same that its reader goes by. */
function coloured(vocabulary: () => Vocabulary) {
  let known: {
    notation: Schemas["NotationOut"];
    words: { kind: string; pattern: RegExp }[];
  } | null = null;
  const words = () => {
    const { notation } = vocabulary();
    if (notation && known?.notation !== notation)
      known = {
        notation,
        words: notation.patterns.map((one) => ({
          kind: one.kind,
          pattern: new RegExp(`^(?:${one.pattern})`, "i"),
        })),
      };
    return known?.words ?? [];
  };
  return StreamLanguage.define<{ head: boolean; named: boolean }>({
    startState: () => ({ head: false, named: false }),
    token(stream, state) {
      if (stream.sol()) {
        state.head = /:\s*$/.test(stream.string);
        state.named = false;
      }
      if (stream.sol() && stream.match(/\s*#.*/)) return "comment";
      if (stream.eatSpace()) return null;
      if (stream.match(/\([^()]*\)/)) return "comment";
      if (stream.match(/\d{4}-\d{2}-\d{2}/)) return "heading";
      // At the beginning of a line these are names: a band row is no band of that level.
      if (!state.named && !state.head && stream.match(/[A-Za-z][\w'-]*/)) {
        state.named = true;
        return null;
      }
      for (const { kind, pattern } of words())
        if ((kind !== "head" || state.head) && stream.match(pattern))
          return state.head ? "heading" : kind === "number" ? "number" : "keyword";
      if (stream.match(/\d[\d.,:]*/)) return "number";
      if (stream.match(/[×x*+/](?=[\s\d])/)) return "operator";
      if (stream.match(/[A-Za-z][\w'-]*/)) return state.head ? "heading" : null;
      stream.next();
      return null;
    },
  });
}

const colouring = new Compartment();

/** Lay the colours on anew: the words they are made from came, or came anew. */
export const recolour = (view: EditorView, vocabulary: () => Vocabulary): void =>
  // Nothing is selected by it: a choice of words that is open stays open.
  view.dispatch({ effects: colouring.reconfigure(coloured(vocabulary)) });

const colours = HighlightStyle.define([
  { tag: tags.number, fontWeight: "600" },
  { tag: tags.keyword, color: "var(--ink-2)" },
  { tag: tags.operator, color: "var(--ink-2)" },
  { tag: tags.comment, color: "var(--ink-2)", fontStyle: "italic" },
  { tag: tags.heading, fontWeight: "600", textDecoration: "underline" },
]);

// Word processors paste soft line ends and other signs that no keyboard has.
// eslint-disable-next-line no-control-regex
const SOFT_ENDS = /[\u000b\u000c\u0085\u2028\u2029]/g;
// eslint-disable-next-line no-control-regex
const CONTROLS = /[\u0000-\u0008\u000e-\u001f\u007f-\u009f\ud800-\udfff\ufffe\uffff]/gu;
export const withoutControls = (text: string): string =>
  text.replace(SOFT_ENDS, "\n").replace(CONTROLS, "");

const looks = EditorView.theme({
  "&": { color: "var(--ink)", backgroundColor: "var(--sheet)", height: "100%", fontSize: "15px" },
  "&.cm-focused": { outline: "none" },
  ".cm-content": {
    fontFamily: '"Spline Sans Mono", monospace',
    lineHeight: "1.7",
    padding: "12px 0 40px",
    caretColor: "var(--ink)",
  },
  ".cm-scroller": { overflow: "auto" },
  ".cm-line": { padding: "0 24px" },
  ".cm-cursor": { borderLeftColor: "var(--ink)", borderLeftWidth: "2px" },
  ".cm-activeLine": { backgroundColor: "color-mix(in oklab, var(--band) 45%, transparent)" },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": {
    backgroundColor: "var(--band) !important",
  },
  ".cm-placeholder": { color: "var(--ink-2)", whiteSpace: "pre-wrap" },
  ".cm-lintRange-error": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--high) 1.5px",
    textUnderlineOffset: "4px",
  },
  ".cm-lintRange-warning": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--caution) 1.5px",
    textUnderlineOffset: "4px",
  },
  ".cm-read-as": {
    color: "var(--ink-2)",
    fontStyle: "italic",
    paddingLeft: "2.5ch",
    fontFamily: '"Source Serif 4 Variable", serif',
    fontSize: "14px",
    userSelect: "none",
  },
  ".cm-read-as::before": { content: '"↳ "', fontStyle: "normal" },
  ".cm-missing": { color: "var(--caution)" },
  ".cm-diagnostic-warning": { borderLeft: "4px solid var(--caution)", padding: "4px 10px" },
  ".cm-tooltip": {
    backgroundColor: "var(--sheet)",
    color: "var(--ink)",
    border: "1px solid var(--rule)",
    fontFamily: '"Source Serif 4 Variable", serif',
    fontSize: "14px",
  },
  ".cm-tooltip-autocomplete ul li": { padding: "3px 10px" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": {
    backgroundColor: "var(--ink)",
    color: "var(--sheet)",
  },
  ".cm-completionIcon": { display: "none" },
  ".cm-completionDetail": { fontStyle: "italic", opacity: "0.8", marginLeft: "1.5em" },
  ".cm-completionMatchedText": { textDecoration: "none", fontWeight: "600" },
  ".cm-diagnostic-error": { borderLeft: "4px solid var(--high)", padding: "4px 10px" },
});

/** How a line was read, behind it: where that differs from what stands there. */
class ReadAs extends WidgetType {
  constructor(
    readonly text: string,
    readonly tone: "read" | "share" | "missing",
  ) {
    super();
  }
  override eq(other: ReadAs) {
    return other.text === this.text && other.tone === this.tone;
  }
  override toDOM() {
    const mark = document.createElement("span");
    mark.className = `cm-read-as cm-${this.tone}`;
    mark.textContent = this.text;
    return mark;
  }
}

const setReadings = StateEffect.define<DecorationSet>();
const readings = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(shown, change) {
    let next = shown.map(change.changes);
    for (const effect of change.effects) if (effect.is(setReadings)) next = effect.value;
    // A line that is being changed is read anew: what stood behind it is not true any more.
    if (change.docChanged)
      change.changes.iterChangedRanges((_from, _to, from, to) => {
        const first = change.state.doc.lineAt(from).from,
          last = change.state.doc.lineAt(to).to;
        next = next.update({ filter: (at) => at < first || at > last });
      });
    return next;
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** A key held down goes on from the place before: it opened this one, and is not typed into it. */
const notHeldOver = () => {
  let fresh = true;
  return EditorView.domEventHandlers({
    keydown: (event) => {
      if (fresh && event.repeat) {
        event.preventDefault();
        return true;
      }
      fresh = false;
      return false;
    },
  });
};

/** Take the marked suggestion, or the first one where none is marked. */
const takeFirst = (view: EditorView) => {
  if (completionStatus(view.state) !== "active") return false;
  if (selectedCompletionIndex(view.state) === null || selectedCompletionIndex(view.state) === -1)
    view.dispatch({ effects: setSelectedCompletion(0) });
  return acceptCompletion(view);
};

interface Listening {
  text: string;
  vocabulary: () => Vocabulary;
  typed: (text: string) => void;
  line: (line: number) => void;
  leave: () => void;
}

/** An editor below a host. It lives in a shadow root: its styles need no inline style then. */
export function openEditor(
  host: HTMLElement,
  { text, vocabulary, typed, line, leave }: Listening,
): EditorView {
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
        colouring.of(coloured(vocabulary)),
        readings,
        notHeldOver(),
        syntaxHighlighting(colours),
        looks,
        EditorView.lineWrapping,
        EditorView.clipboardInputFilter.of(withoutControls),
        EditorView.contentAttributes.of({
          "aria-label": "The session as text",
          spellcheck: "false",
        }),
        placeholder(
          "Back squat 5 × 6 at 57.5 kg, rest 140 s\nBench press 3 × 9–13 at 60 kg, RPE 8",
        ),
        // Nothing is chosen until an arrow chooses it: Enter is a new line.
        autocompletion({
          override: [complete(vocabulary)],
          icons: false,
          selectOnOpen: false,
          defaultKeymap: false,
          interactionDelay: 0,
        }),
        keymap.of([
          { key: "Tab", run: takeFirst },
          {
            key: "Enter",
            run: (view) => acceptCompletion(view) || (closeCompletion(view), insertNewline(view)),
          },
          { key: "ArrowDown", run: moveCompletionSelection(true) },
          { key: "ArrowUp", run: moveCompletionSelection(false) },
          { key: "Ctrl-Space", run: startCompletion },
          { key: "Escape", run: (view) => closeCompletion(view) || (leave(), true) },
          ...defaultKeymap,
          ...historyKeymap,
          ...lintKeymap,
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
export function underline(
  view: EditorView,
  mistakes: Schemas["MarkOut"][],
  warnings: Schemas["MarkOut"][],
): void {
  const { doc } = view.state;
  const mark =
    (severity: "error" | "warning") =>
    (one: Schemas["MarkOut"]): Diagnostic => {
      const line = doc.line(one.line);
      const from = Math.min(line.from + one.column - 1, line.to);
      const to = Math.min(from + one.length, line.to);
      return {
        from: to > from ? from : Math.max(line.from, to - 1),
        to,
        severity,
        message: one.message,
      };
    };
  const there = (one: Schemas["MarkOut"]) => one.line <= doc.lines;
  const found = [
    ...mistakes.filter(there).map(mark("error")),
    ...warnings.filter(there).map(mark("warning")),
  ];
  view.dispatch(setDiagnostics(view.state, found));
}

/** Show behind each line how it was read, and what its share of a maximum comes to. */
export function showReadings(view: EditorView, answer: Schemas["Written"]): void {
  const { doc } = view.state;
  const told: { line: number; text: string; tone: "read" | "share" | "missing" }[] = [
    ...answer.readings.map((one) => ({ line: one.line, text: one.text, tone: "read" as const })),
    ...answer.shares.map((one) => ({
      line: one.line,
      text: one.message,
      tone: one.missing ? ("missing" as const) : ("share" as const),
    })),
  ];
  const marks: Range<Decoration>[] = told
    .filter((one) => one.line <= doc.lines)
    .map((one) =>
      Decoration.widget({ widget: new ReadAs(one.text, one.tone), side: 1 }).range(
        doc.line(one.line).to,
      ),
    );
  view.dispatch({ effects: setReadings.of(Decoration.set(marks, true)) });
}
