import { useCallback, useState } from "react";
import { useSearchParams } from "react-router";
import { type WeekPlace } from "@/api/place";
import { useHeldKeys } from "@/frame/keys";
import { BelowText } from "./BelowText";
import { Comes, Strip } from "./Comes";
import { DeskHead } from "./DeskHead";
import { Form } from "./Form";
import { NotationHelp } from "@/shared/NotationHelp";
import { PrintSheet } from "./PrintSheet";
import { TypedBefore } from "./TypedBefore";
import { useEditor } from "./useEditor";
import { useDoubts } from "./useDoubts";
import { usePen } from "./usePen";
import type { Sheet } from "./sheet";
import { useWriting } from "./useWriting";

interface Props {
  place: WeekPlace;
  athlete: string;
  opened: Sheet;
  days: string[];
  stored: (sheet: Sheet) => void;
  remove: (sheet: Sheet) => Promise<void>;
  /** Make each day in the text a session of its own. */
  takeApart: (sheet: Sheet) => Promise<void>;
}

/** A session in hand: as text or as a form, with what is wrong below and what it comes to beside. */
export function Desk({ place, athlete, opened, days, stored, remove, takeApart }: Props) {
  const { sheet, answer, isFresh, error, saving, put, aside, decide } = useWriting(
    place,
    opened,
    stored,
  );
  const asked = useDoubts(place.athlete, answer, sheet.text);
  const [help, setHelp] = useState(false);
  const [params] = useSearchParams();
  const asForm = params.get("as") === "form";
  const putText = useCallback((text: string) => put({ text }), [put]);
  const { host, movements, notation, write, replace, goTo, focus } = useEditor(place, {
    text: sheet.text,
    answer,
    doubts: asked.doubts,
    isOpen: !asForm,
    typed: (text) => {
      asked.touch();
      putText(text);
    },
    line: asked.goTo,
    leave: () => putDown(),
  });
  const { pen, paper, putDown } = usePen(focus);
  useHeldKeys(pen && !help, (event) => {
    if (write(event.key)) event.preventDefault();
  });
  const putWhole = useCallback(
    (whole: string) => {
      if (!replace(whole)) putText(whole);
    },
    [replace, putText],
  );
  return (
    <>
      {answer && <PrintSheet athlete={athlete} sheet={sheet} answer={answer} />}
      <main
        ref={paper}
        tabIndex={-1}
        className="no-print flex min-h-0 flex-col bg-sheet outline-none"
      >
        <DeskHead
          place={place}
          sheet={sheet}
          days={days}
          saving={saving}
          put={put}
          help={() => setHelp(true)}
          remove={() => remove(sheet)}
        />
        {!pen && <PenDown />}
        {aside && (
          <TypedBefore
            aside={aside}
            stored={sheet.text}
            decide={(mine) => {
              decide(mine);
              if (mine) replace(aside.copy.text);
            }}
          />
        )}
        {error && <Wrong says={error} />}
        {asForm ? (
          notation && (
            <Form
              athlete={place.athlete}
              text={sheet.text}
              names={movements}
              mistakes={answer?.mistakes ?? []}
              put={putText}
              line={asked.goTo}
              choices={notation}
            />
          )
        ) : (
          <div ref={host} className="min-h-0 flex-1 overflow-hidden max-lg:min-h-[45vh]" />
        )}
        {answer && (
          <BelowText
            athlete={place.athlete}
            sheet={sheet}
            answer={answer}
            mayTake={isFresh && asked.typed}
            asked={asked.asked}
            pen={pen}
            go={goTo}
            put={putWhole}
            isStored={saving === "saved"}
            takeApart={takeApart}
          />
        )}
      </main>
      <div className="no-print contents">
        <Comes answer={answer} line={asked.line} />
        {answer && <Strip answer={answer} line={asked.line} />}
      </div>
      <NotationHelp open={help} close={() => setHelp(false)} />
    </>
  );
}

/** That letters are shortcuts now, and the way back to typing. */
function PenDown() {
  return (
    <p role="status" className="border-b border-hair px-6 py-1 text-sm text-ink-2">
      Letters are shortcuts now, <kbd className="font-mono">?</kbd> lists them.{" "}
      <kbd className="font-mono">Enter</kbd> goes back to typing.
    </p>
  );
}

function Wrong({ says }: { says: string }) {
  return (
    <p role="alert" className="border-l-4 border-high px-6 py-1 text-sm">
      {says}
    </p>
  );
}
