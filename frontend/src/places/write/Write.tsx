import type { EditorView } from "@codemirror/view";
import { type ReactNode, useCallback, useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { useFrame } from "@/api/sheet";
import { useMovementNames, useNotation, useWritten, writing } from "@/api/write";
import { useWeekPlace } from "@/frame/AthleteFrame";
import { Failure } from "@/frame/Failure";
import { useHeldKeys } from "@/frame/keys";
import { day } from "@/words";
import { Comes } from "./Comes";
import { Form } from "./Form";
import { NotationHelp } from "./NotationHelp";
import { PrintSheet } from "./PrintSheet";
import { type Vocabulary, openEditor, showReadings, underline } from "./editor";
import { type Aside, type Sheet, usePlanChanged, useWriting } from "./useWriting";

/** The week's planned sessions as text: one in hand, what it comes to beside it. */
export function Write() {
  const place = useWeekPlace();
  const written = useWritten(place);
  const frame = useFrame(place);
  if (written.error ?? frame.error) return <Failure error={written.error ?? frame.error} />;
  if (!written.data || !frame.data || frame.data.week !== place.week)
    return <p className="p-6 text-ink-2">Looking up the sessions…</p>;
  return (
    <Week
      key={`${place.athlete}/${place.week}`}
      place={place}
      athlete={frame.data.athlete.name}
      days={written.data.days}
      rows={written.data.sessions}
      reload={async () => (await written.refetch()).data?.sessions ?? []}
    />
  );
}

function Week({
  place,
  athlete,
  days,
  rows,
  reload,
}: {
  place: WeekPlace;
  athlete: string;
  days: string[];
  rows: Schemas["WrittenRow"][];
  reload: () => Promise<Schemas["WrittenRow"][]>;
}) {
  const [sheets, setSheets] = useState<Sheet[]>(rows);
  const [removed, setRemoved] = useState<Sheet | null>(null);
  const [params, setParams] = useSearchParams();
  const planChanged = usePlanChanged();
  const open = (one: string) => setParams((now) => withSession(now, one), { replace: true });
  const chosen = params.get("session");
  const fresh = chosen?.startsWith("new-") ? chosen.slice(4) : null;
  const current = fresh
    ? { id: null, date: fresh, title: "", text: "", revision: 0 }
    : (sheets.find((one) => String(one.id) === chosen) ?? sheets[0]);
  // Whoever leaves and comes back at once may be told of a session that was stored meanwhile.
  const [asked, setAsked] = useState<string | null>(null);
  const unknown =
    chosen !== null &&
    fresh === null &&
    asked !== chosen &&
    !sheets.some((one) => String(one.id) === chosen);
  const again = useRef(reload);
  useEffect(() => {
    again.current = reload;
  });
  useEffect(() => {
    if (!unknown) return;
    void again.current().then((found) => {
      setSheets(found);
      setAsked(chosen);
    });
  }, [unknown, chosen]);
  // A session that is stored for the first time gets a number; the desk it is written on stays.
  const [born, setBorn] = useState<Record<number, string>>({});
  const stored = useCallback(
    (sheet: Sheet) => {
      setSheets((all) =>
        [...all.filter((one) => one.id !== sheet.id), sheet].sort((a, b) =>
          a.date.localeCompare(b.date),
        ),
      );
      if (fresh && sheet.id !== null) {
        const { id } = sheet;
        setBorn((all) => ({ ...all, [id]: `new-${fresh}` }));
        // Only if one is still there: a save may end after somebody has gone on to another session.
        setParams(
          (now) => (now.get("session") === `new-${fresh}` ? withSession(now, String(id)) : now),
          { replace: true },
        );
      }
    },
    [fresh, setParams],
  );
  const free = days.find((one) => !sheets.some((sheet) => sheet.date === one)) ?? days[0];
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[12rem_minmax(0,1fr)_27rem] print:block">
      <nav
        aria-label="Sessions of the week"
        className="no-print min-h-0 overflow-auto border-r border-rule py-3"
      >
        <ol>
          {sheets.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                onClick={() => open(String(one.id))}
                aria-current={one === current || undefined}
                className={`w-full px-5 py-1.5 text-left ${one === current ? "bg-sheet" : "hover:bg-band/50"}`}
              >
                <span className="block text-sm text-ink-2">{day(one.date)}</span>
                <span className={`block truncate ${one === current ? "font-semibold" : ""}`}>
                  {one.title || "Without a title"}
                </span>
              </button>
            </li>
          ))}
        </ol>
        <button type="button" className="key-button mx-5 mt-3" onClick={() => open(`new-${free}`)}>
          New session
        </button>
        {removed && (
          <p role="status" className="mx-5 mt-4 text-sm">
            {removed.title || "The session"} is out of the week.{" "}
            <button
              type="button"
              className="trail-link"
              onClick={async () => {
                const next = await writing.restore(place, removed.id ?? 0, removed.revision);
                stored({ ...removed, revision: next.revision });
                setRemoved(null);
                await planChanged();
              }}
            >
              Undo
            </button>
          </p>
        )}
      </nav>
      {unknown ? (
        <p className="col-span-2 bg-sheet px-6 py-8 text-ink-2">Looking up the session…</p>
      ) : current ? (
        <Desk
          key={current.id === null ? `new-${current.date}` : (born[current.id] ?? current.id)}
          place={place}
          athlete={athlete}
          opened={current}
          days={days}
          stored={stored}
          remove={async (sheet) => {
            if (sheet.id === null) return;
            const next = await writing.remove(place, sheet.id, sheet.revision);
            setSheets((all) => all.filter((one) => one.id !== sheet.id));
            setRemoved({ ...sheet, revision: next.revision });
            setParams({}, { replace: true });
            await planChanged();
          }}
        />
      ) : (
        <p className="col-span-2 bg-sheet px-6 py-8">
          No session is planned in this week. Begin with a new one: a line for each movement, as on
          the board.
        </p>
      )}
    </div>
  );
}

function withSession(now: URLSearchParams, session: string): URLSearchParams {
  const next = new URLSearchParams(now);
  next.set("session", session);
  return next;
}

/** A mark in the text that can be gone to. */
function Notice({
  line,
  message,
  tone,
  go,
  children,
}: {
  line: number;
  message: string;
  tone: string;
  go: () => void;
  children?: ReactNode;
}) {
  return (
    <li>
      <button type="button" className="text-left hover:underline" onClick={go}>
        <span className={tone}>Line {line}</span>: {message}
      </button>
      {children}
    </li>
  );
}

/** What was typed here before and is not in the session: to go on with, or to let go of. */
function TypedBefore({
  aside,
  stored,
  decide,
}: {
  aside: Aside;
  stored: string;
  decide: (mine: boolean) => void;
}) {
  return (
    <section aria-label="Typed before" className="border-l-4 border-caution px-5 py-2 text-sm">
      <p>
        {aside.key === null
          ? "You typed this, and the session was changed elsewhere before it was stored."
          : "Another window left this behind without storing it."}{" "}
        Nothing is lost until you choose.
      </p>
      <div className="my-1.5 grid grid-cols-2 gap-4">
        {[
          ["Typed here", aside.copy.text],
          ["Stored", stored],
        ].map(([head, text]) => (
          <div key={head}>
            <h3 className="font-semibold">{head}</h3>
            <pre className="max-h-28 overflow-auto font-mono text-xs whitespace-pre-wrap">
              {text}
            </pre>
          </div>
        ))}
      </div>
      <p className="flex gap-3">
        <button type="button" className="key-button" onClick={() => decide(true)}>
          Go on with what was typed
        </button>
        <button type="button" className="key-button" onClick={() => decide(false)}>
          Keep what is stored
        </button>
      </p>
    </section>
  );
}

function Desk({
  place,
  athlete,
  opened,
  days,
  stored,
  remove,
}: {
  place: WeekPlace;
  athlete: string;
  opened: Sheet;
  days: string[];
  stored: (sheet: Sheet) => void;
  remove: (sheet: Sheet) => Promise<void>;
}) {
  const { sheet, answer, error, saving, put, aside, decide } = useWriting(place, opened, stored);
  const names = useMovementNames(place);
  const notation = useNotation();
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const paper = useRef<HTMLElement>(null);
  const known = useRef<Vocabulary>({ names: [], notation: null });
  // One writes here until one says otherwise: then letters are keys, and not before.
  const [pen, setPen] = useState(true);
  const [line, setLine] = useState(1);
  const [params, setParams] = useSearchParams();
  const asForm = params.get("as") === "form";
  const show = (as: "form" | "text") =>
    setParams(
      (now) => {
        const next = new URLSearchParams(now);
        if (as === "form") next.set("as", "form");
        else next.delete("as");
        return next;
      },
      { replace: true },
    );
  const [help, setHelp] = useState(false);
  useEffect(() => {
    known.current = { names: names.data?.movements ?? [], notation: notation.data ?? null };
    // The colours are made from the words: they are laid on anew when these come.
    view.current?.dispatch({ selection: view.current.state.selection });
  }, [names.data, notation.data]);
  // The editor opens with the text in hand, after a time in the form, too.
  const inHand = useRef(opened.text);
  useEffect(() => {
    inHand.current = sheet.text;
  });
  useEffect(() => {
    if (asForm || !host.current) return undefined;
    const editor = openEditor(host.current, {
      text: inHand.current,
      vocabulary: () => known.current,
      typed: (text) => put({ text }),
      line: setLine,
      leave: () => {
        setPen(false);
        paper.current?.focus();
      },
    });
    view.current = editor;
    editor.focus();
    return () => {
      view.current = null;
      editor.destroy();
    };
  }, [asForm, put]);
  useEffect(() => {
    if (!view.current || !answer) return;
    underline(view.current, answer.mistakes, [...answer.restricted, ...answer.kit]);
    showReadings(view.current, answer);
  }, [answer, asForm]);
  // Whoever takes up a field again, or presses Enter on the sheet, writes again.
  useEffect(() => {
    const sheetOf = paper.current;
    if (!sheetOf) return undefined;
    const taken = (event: FocusEvent) => {
      if (event.target !== sheetOf) setPen(true);
    };
    const entered = (event: KeyboardEvent) => {
      if (event.target !== sheetOf || event.key !== "Enter") return;
      event.preventDefault();
      setPen(true);
      view.current?.focus();
    };
    sheetOf.addEventListener("focusin", taken);
    sheetOf.addEventListener("keydown", entered);
    return () => {
      sheetOf.removeEventListener("focusin", taken);
      sheetOf.removeEventListener("keydown", entered);
    };
  }, []);
  useHeldKeys(pen && !help, (event) => {
    const editor = view.current;
    if (!editor) return;
    event.preventDefault();
    editor.focus();
    editor.dispatch(editor.state.replaceSelection(event.key));
  });
  const putText = useCallback((text: string) => put({ text }), [put]);
  const goTo = (at: { line: number; column: number }) => {
    const editor = view.current;
    if (!editor || at.line > editor.state.doc.lines) return;
    editor.dispatch({
      selection: {
        anchor: Math.min(
          editor.state.doc.line(at.line).from + at.column - 1,
          editor.state.doc.length,
        ),
      },
      scrollIntoView: true,
    });
    editor.focus();
  };
  const take = (miss: Schemas["KitMiss"], text: string) => {
    const lines = sheet.text.split("\n");
    const old = lines[miss.line - 1] ?? "";
    lines[miss.line - 1] =
      old.slice(0, miss.column - 1) + text + old.slice(miss.column - 1 + miss.length);
    const whole = lines.join("\n");
    const editor = view.current;
    if (editor)
      editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: whole } });
    else put({ text: whole });
  };
  return (
    <>
      {answer && <PrintSheet athlete={athlete} sheet={sheet} answer={answer} />}
      <main
        ref={paper}
        tabIndex={-1}
        className="no-print flex min-h-0 flex-col bg-sheet outline-none"
      >
        <div className="flex items-baseline gap-3 border-b border-hair px-6 pt-3 pb-2">
          <select
            aria-label="Day"
            value={sheet.date}
            onChange={(event) => put({ date: event.target.value })}
            className="h-7 bg-sheet"
          >
            {days.map((one) => (
              <option key={one} value={one}>
                {day(one)}
              </option>
            ))}
          </select>
          <input
            value={sheet.title}
            onChange={(event) => put({ title: event.target.value })}
            placeholder="Title"
            aria-label="Title of the session"
            maxLength={200}
            className="h-7 min-w-0 flex-1 border-b border-rule bg-transparent font-semibold"
          />
          <span role="group" aria-label="How to write" className="flex gap-2 text-sm">
            {(["text", "form"] as const).map((as) => (
              <button
                key={as}
                type="button"
                aria-pressed={asForm === (as === "form")}
                onClick={() => show(as)}
                className={`border-b-2 ${asForm === (as === "form") ? "border-ink" : "border-transparent text-ink-2 hover:text-ink"}`}
              >
                {as === "form" ? "Form" : "Text"}
              </button>
            ))}
          </span>
          <button
            type="button"
            className="trail-link text-sm text-ink-2"
            onClick={() => setHelp(true)}
          >
            Notation
          </button>
          <button
            type="button"
            className="trail-link text-sm text-ink-2"
            onClick={() => window.print()}
          >
            Print
          </button>
          {sheet.id !== null && (
            <a
              download
              className="trail-link text-sm text-ink-2"
              href={`/api/athletes/${place.athlete}/weeks/${place.week}/written/${sheet.id}/paper`}
            >
              PDF
            </a>
          )}
          <span
            role="status"
            className={`text-sm ${saving === "stored" || saving === "storing…" ? "text-ink-2" : "text-high"}`}
          >
            {saving}
          </span>
          {sheet.id !== null && (
            <button
              type="button"
              className="trail-link text-sm text-ink-2"
              onClick={() => remove(sheet)}
            >
              Remove
            </button>
          )}
        </div>
        {!pen && (
          <p role="status" className="border-b border-hair px-6 py-1 text-sm text-ink-2">
            Letters are keys now, <kbd className="font-mono">?</kbd> lists them.{" "}
            <kbd className="font-mono">Enter</kbd> goes back to writing.
          </p>
        )}
        {aside && (
          <TypedBefore
            aside={aside}
            stored={sheet.text}
            decide={(mine) => {
              decide(mine);
              const editor = view.current;
              if (mine && editor)
                editor.dispatch({
                  changes: { from: 0, to: editor.state.doc.length, insert: aside.copy.text },
                });
            }}
          />
        )}
        {error && (
          <p role="alert" className="border-l-4 border-high px-6 py-1 text-sm">
            {error}
          </p>
        )}
        {asForm ? (
          <Form
            athlete={place.athlete}
            text={sheet.text}
            names={names.data?.movements ?? []}
            mistakes={answer?.mistakes ?? []}
            put={putText}
            line={setLine}
          />
        ) : (
          <div ref={host} className="min-h-0 flex-1 overflow-hidden" />
        )}
        {answer && answer.mistakes.length + answer.restricted.length + answer.kit.length > 0 && (
          <ul
            aria-label="Mistakes"
            className="max-h-36 overflow-auto border-t border-rule px-6 py-2 text-sm"
          >
            {answer.mistakes.map((one) => (
              <Notice
                key={`${one.line}/${one.column}`}
                line={one.line}
                message={one.message}
                tone="text-high"
                go={() => goTo(one)}
              />
            ))}
            {answer.restricted.map((one) => (
              <Notice
                key={`restricted ${one.line}/${one.message}`}
                line={one.line}
                message={one.message}
                tone="text-high"
                go={() => goTo(one)}
              />
            ))}
            {answer.kit.map((one) => (
              <Notice
                key={`kit ${one.line}/${one.column}`}
                line={one.line}
                message={one.message}
                tone="text-caution"
                go={() => goTo(one)}
              >
                {one.choices.map((choice) => (
                  <button
                    key={choice.text}
                    type="button"
                    className="trail-link ml-2"
                    onClick={() => take(one, choice.text)}
                  >
                    {choice.text}
                  </button>
                ))}
              </Notice>
            ))}
          </ul>
        )}
      </main>
      <div className="no-print contents">
        <Comes answer={answer} line={line} />
      </div>
      <NotationHelp open={help} close={() => setHelp(false)} />
    </>
  );
}
