import { useState } from "react";
import type { Schemas } from "@/api/client";
import { newId } from "@/api/id";
import { useChange } from "@/api/changes";
import { logs } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { NotationHelp } from "@/shared/NotationHelp";
import { day } from "@/words";
import { emptyLog } from "./log";

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
  const [title, setTitle] = useState("");
  const [text, setText] = useState("");
  const [help, setHelp] = useState(false);
  const [mistakes, setMistakes] = useState<Schemas["MistakeOut"][]>([]);
  const keep = useChange(async () => {
    const found = await logs.read(place, text);
    setMistakes(found.mistakes);
    if (found.mistakes.length > 0) return;
    const id = newId();
    await logs.keep(place.athlete, id, {
      change: newId(),
      revision: 0,
      plan: null,
      session: { ...emptyLog(date, title), sets: found.sets },
    });
    stored(id);
  });
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
        value={text}
        onChange={(event) => setText(event.target.value)}
        rows={12}
        spellCheck={false}
        aria-label="What was done"
        placeholder={"Back squat 5 × 6 at 57.5 kg, RPE 8\nPull-up 8 + 2"}
        className="field w-full font-mono text-sm"
      />
      {mistakes.length > 0 && (
        <ul role="alert" className="text-sm">
          {mistakes.map((one) => (
            <li key={`${one.line}/${one.column}`}>
              <span className="text-high">Line {one.line}</span>: {one.message}
            </li>
          ))}
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
