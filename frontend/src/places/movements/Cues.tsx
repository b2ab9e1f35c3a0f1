import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { saveCues, useCues } from "@/api/cues";
import { May } from "@/frame/May";
import { Text } from "./MovementFields";

type Words = Schemas["Cues"];

const MOMENTS: [keyof Words & string, string][] = [
  ["set_up", "Set up"],
  ["move", "Move"],
  ["breathe", "Breathe"],
  ["feel", "Feel"],
  ["stop_when", "Stop when"],
  ["spare", "Spare: wrist, knee, low back"],
];

/** What is said at a movement; a house has its own words where it wants others. */
export function Cues({ movement }: { movement: Schemas["MovementOut"] }) {
  const found = useCues(movement.id);
  const [editing, setEditing] = useState(false);
  if (!found.data) return found.error && <p role="alert">{found.error.message}</p>;
  const { cues, is_own, said } = found.data;
  if (editing)
    return <CuesForm id={movement.id} cues={cues} isOwn={is_own} close={() => setEditing(false)} />;
  return (
    <section aria-label="Cues" className="mt-4 text-sm">
      <h3 className="border-b border-rule pb-0.5 text-base font-semibold">
        Cues{is_own && <span className="ml-2 text-sm font-normal text-ink-2">the house’s own</span>}
      </h3>
      <dl className="mt-1 grid grid-cols-[6rem_1fr] gap-y-1">
        {said.map((one) => (
          <div key={one.title} className="contents">
            <dt className="text-ink-2 italic">{one.title}</dt>
            <dd>{one.says}</dd>
          </div>
        ))}
      </dl>
      {said.length === 0 && <p className="text-ink-2">Nothing is said at it yet.</p>}
      <May right="plan">
        <button type="button" className="trail-link mt-1" onClick={() => setEditing(true)}>
          {said.length === 0 ? "Add cues" : "Change the cues"}
        </button>
      </May>
    </section>
  );
}

interface FormProps {
  id: number;
  cues: Words;
  isOwn: boolean;
  close: () => void;
}

function CuesForm({ id, cues, isOwn, close }: FormProps) {
  const [typed, setTyped] = useState<Words>(cues);
  const save = useChange(async (words: Words | null) => {
    await saveCues(id, words);
    close();
  });
  return (
    <form
      aria-label="Cues"
      className="mt-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(typed);
      }}
    >
      <h3 className="border-b border-rule pb-0.5 text-base font-semibold">Cues</h3>
      {MOMENTS.map(([key, title]) => (
        <Text
          key={key}
          label={title}
          value={String(typed[key] ?? "")}
          put={(words) => setTyped({ ...typed, [key]: words })}
        />
      ))}
      {save.error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-2 whitespace-pre-line">
          {save.error.message}
        </p>
      )}
      <p className="mt-3 flex flex-wrap gap-3">
        <button type="submit" className="ink-button" disabled={save.isPending}>
          Save the cues
        </button>
        {isOwn && (
          <button
            type="button"
            className="key-button"
            disabled={save.isPending}
            onClick={() => save.mutate(null)}
          >
            As shipped
          </button>
        )}
        <button type="button" className="key-button" onClick={close}>
          Cancel
        </button>
      </p>
    </form>
  );
}
