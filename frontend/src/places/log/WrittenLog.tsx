import { useRef, useState } from "react";
import { newId } from "@/api/id";
import { useChange } from "@/api/changes";
import { logs } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { Answers } from "@/shared/Answers";
import { type Asked, answered, askedOf, doubted, takenOf } from "@/shared/asked";
import { AsUsual } from "@/shared/AsUsual";
import { useHabits } from "@/shared/useHabits";
import { NotationHelp } from "@/shared/NotationHelp";
import { day } from "@/words";
import { emptyLog } from "./log";
import { useTyped } from "@/frame/useTyped";

interface Props {
  place: WeekPlace;
  days: string[];
  today: string;
  stored: (id: string) => void;
}

/** A session without a plan, written in the notation as it was done. */
export function WrittenLog({ place, days, today, stored }: Props) {
  const past = days.filter((one) => one <= today);
  const [date, setDate] = useState(past.at(-1) ?? days[0] ?? "");
  const [title, setTitle] = useTyped("title of a session without a plan");
  const [text, setText] = useTyped("session without a plan");
  const [help, setHelp] = useState(false);
  const written = useRef<HTMLTextAreaElement>(null);
  const { asked, taken, askAgain, choose, keep } = useKeeping(
    place,
    { date, title, text },
    setText,
    stored,
  );
  if (past.length === 0)
    return <p className="py-4">This week lies ahead: a log is of what was done.</p>;
  return (
    <form
      className="max-w-3xl"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate(undefined);
      }}
    >
      <div className="flex items-baseline gap-3 pb-2">
        <select
          aria-label="Day"
          value={date}
          onChange={(event) => setDate(event.target.value)}
          className="h-7 bg-sheet"
        >
          {past.map((one) => (
            <option key={one} value={one}>
              {day(one)}
            </option>
          ))}
        </select>
        <input
          value={title}
          placeholder="Title"
          aria-label="Title of the session"
          maxLength={200}
          onChange={(event) => setTitle(event.target.value)}
          className="h-7 min-w-0 flex-1 border-b border-rule bg-transparent font-semibold"
        />
        <button
          type="button"
          className="trail-link text-sm text-ink-2"
          onClick={() => setHelp(true)}
        >
          Notation
        </button>
      </div>
      <textarea
        ref={written}
        value={text}
        onChange={(event) => setText(event.target.value)}
        rows={12}
        spellCheck={false}
        aria-label="What was done"
        placeholder={"Back squat 5 × 6 at 57.5 kg, RPE 8\nPull-up 8 + 2"}
        className="field w-full font-mono text-sm"
      />
      <AsUsual taken={taken} text={text} askAgain={askAgain} put={setText} />
      {asked.length > 0 && (
        <ul role="alert" className="text-sm">
          <Answers asked={asked} go={({ line }) => goToLine(written.current, line)} take={choose} />
        </ul>
      )}
      {keep.error && (
        <p role="alert" className="text-sm text-high">
          {keep.error.message}
        </p>
      )}
      <button type="submit" className="ink-button mt-2" disabled={!text.trim() || keep.isPending}>
        Log it
      </button>
      <NotationHelp open={help} close={() => setHelp(false)} />
    </form>
  );
}

/** Put the cursor at the beginning of a line. */
function goToLine(area: HTMLTextAreaElement | null, line: number): void {
  if (!area) return;
  const at =
    area.value
      .split("\n")
      .slice(0, line - 1)
      .join("\n").length + (line > 1 ? 1 : 0);
  area.focus();
  area.setSelectionRange(at, at);
}

interface Draft {
  date: string;
  title: string;
  text: string;
}

/** Keep what was written, once nothing of it is asked about any more. */
function useKeeping(
  place: WeekPlace,
  draft: Draft,
  setText: (text: string) => void,
  stored: (id: string) => void,
) {
  const [asked, setAsked] = useState<Asked[]>([]);
  const [meant, setMeant] = useState<string[]>([]);
  const { taken, learn, usual, askAgain } = useHabits(place.athlete);
  const keep = useChange(async () => {
    const { text } = draft;
    const found = await logs.read(place, text);
    const open = found.doubts.filter(
      (one) => !meant.includes(one.taken) && one.habit !== one.others.length,
    );
    const now = [
      ...askedOf(found.mistakes, text, { all: true }),
      ...doubted(open, (one) => {
        setMeant((before) => [...before, one.taken]);
        setAsked((before) => before.filter((other) => other.line !== one.line));
      }),
    ];
    // What is usual is taken as said, and seen before it is logged.
    const whole = usual(text, now);
    setAsked(whole === null ? now : now.filter((one) => takenOf(one) === null));
    if (whole !== null) {
      setText(whole);
      return;
    }
    if (found.mistakes.length + open.length > 0) return;
    const id = newId();
    await logs.keep(place.athlete, id, {
      change: newId(),
      revision: 0,
      plan: null,
      session: { ...emptyLog(draft.date, draft.title), sets: found.sets },
    });
    stored(id);
  });
  const choose = (one: Asked, other: string) => {
    learn(one, one.others.indexOf(other));
    setText(answered(draft.text, one, other));
    setAsked((before) => before.filter((left) => left.line !== one.line));
  };
  return { asked, taken, askAgain, choose, keep };
}
