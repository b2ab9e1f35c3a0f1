import { useState } from "react";
import { useRoster } from "@/api/roster";
import { count, dayAfter, mondayOf, span } from "@/words";
import { DialogSheet } from "./DialogSheet";
import { Tick } from "./Tick";
import { squadsOf } from "./squads";

interface Props {
  open: boolean;
  close: () => void;
  /** Whose page one comes from; nobody's in the places of the house. */
  athlete?: { id: number; name: string };
  /** Those that are shown where one comes from. */
  shown?: number[];
}

/** What goes on paper: the plans of a week, for one athlete, a squad or everybody, as one PDF. */
export function PrintDialog({ open, close, athlete, shown }: Props) {
  const roster = useRoster();
  const people = [...(roster.data?.athletes ?? []), ...(roster.data?.waiting ?? [])];
  const [next, setNext] = useState(false);
  const [cues, setCues] = useState(false);
  const [who, setWho] = useState(athlete ? "one" : "shown");
  const all = people.map((one) => one.id);
  const choices = [
    ...(athlete ? [{ key: "one", says: athlete.name, ids: [athlete.id] }] : []),
    ...(shown && shown.length > 0 && shown.length < all.length
      ? [{ key: "shown", says: `The ${shown.length} shown`, ids: shown }]
      : []),
    ...squadsOf(people).map((squad) => ({
      key: `squad ${squad}`,
      says: squad,
      ids: people.filter((one) => one.squad === squad).map((one) => one.id),
    })),
    { key: "all", says: "Everybody", ids: all },
  ];
  const chosen = choices.find((one) => one.key === who) ?? choices.at(-1);
  if (!roster.data || !chosen) return null;
  const monday = mondayOf(roster.data.today);
  const first = dayAfter(monday, next ? 7 : 0);
  return (
    <DialogSheet open={open} close={close} title="Print plans">
      <p>A page for each: what to do, with a box for every set, and what to watch.</p>
      <Pick
        legend="Week"
        choices={[
          { key: "now", says: `This week, ${span(monday, dayAfter(monday, 6))}` },
          { key: "next", says: `Next week, ${span(dayAfter(monday, 7), dayAfter(monday, 13))}` },
        ]}
        value={next ? "next" : "now"}
        put={(key) => setNext(key === "next")}
      />
      <Pick legend="For" choices={choices} value={chosen.key} put={setWho} />
      <p className="mt-3 text-sm">
        <Tick label="with the cues of each movement" value={cues} put={setCues} />
      </p>
      <div className="mt-4 flex gap-3">
        <a
          className="ink-button"
          href={`/api/print?day=${first}&athletes=${chosen.ids.join(",")}${cues ? "&cues=true" : ""}`}
          target="_blank"
          rel="noreferrer"
        >
          Open {count(chosen.ids.length, "page")} as a PDF
        </a>
        <button type="button" className="key-button" onClick={close}>
          Close
        </button>
      </div>
    </DialogSheet>
  );
}

interface PickProps {
  legend: string;
  choices: { key: string; says: string }[];
  value: string;
  put: (key: string) => void;
}

function Pick({ legend, choices, value, put }: PickProps) {
  return (
    <fieldset className="mt-3">
      <legend className="text-sm text-ink-2 italic">{legend}</legend>
      <div className="flex flex-wrap gap-x-5">
        {choices.map((one) => (
          <label key={one.key} className="flex min-h-8 items-center gap-1.5">
            <input
              type="radio"
              name={`print ${legend}`}
              checked={value === one.key}
              onChange={() => put(one.key)}
              className="size-4 accent-ink"
            />
            {one.says}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
