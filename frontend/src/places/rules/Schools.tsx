import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { type WeekPlace } from "@/api/place";
import { rules as calls } from "@/api/rules";
import { SchoolsDialog } from "@/shared/SchoolsDialog";

type Preset = Schemas["PresetOut"];

interface Props {
  presets: Preset[];
  chosen: Record<string, unknown>;
  choose: (preset: Preset) => void;
  /** Schools are of the house: an athlete's own rules only take one up. */
  house: boolean;
  place: WeekPlace | null;
}

/** The schools to begin with, and the house's own: chosen, saved by a name, removed, compared. */
export function Schools({ presets, chosen, choose, house, place }: Props) {
  const [removed, setRemoved] = useState<Preset | null>(null);
  const save = useChange(calls.saveSchool);
  const remove = useChange(async (preset: Preset) => {
    await calls.removeSchool(preset.name);
    setRemoved(preset);
  });
  const failed = save.error ?? remove.error;
  return (
    <div className="mb-4 text-sm">
      <div className="flex flex-wrap items-baseline gap-2">
        <span className="text-ink-2 italic">Schools:</span>
        {presets.map((preset) => (
          <span key={preset.name} className="inline-flex">
            <button type="button" className="key-button" onClick={() => choose(preset)}>
              {preset.name}
            </button>
            {house && preset.of_house && (
              <button
                type="button"
                className="px-1.5 hover:bg-band"
                aria-label={`Remove the school ${preset.name}`}
                onClick={() => remove.mutate(preset)}
              >
                ×
              </button>
            )}
          </span>
        ))}
        {house && (
          <SaveAs
            saving={save.isPending}
            save={(name) => {
              setRemoved(null);
              return save.mutateAsync({ name, chosen });
            }}
          />
        )}
        {place && <SchoolsDialog place={place} basis="completed" />}
      </div>
      {failed && (
        <p role="alert" className="mt-1 text-high">
          {failed.message}
        </p>
      )}
      {removed && (
        <p role="status" className="mt-1 text-ink-2">
          “{removed.name}” removed.{" "}
          <button
            type="button"
            className="trail-link"
            onClick={() => {
              save.mutate({ name: removed.name, chosen: removed.rules });
              setRemoved(null);
            }}
          >
            Undo
          </button>
        </p>
      )}
    </div>
  );
}

/** The rules in hand under a name of the coach's. */
function SaveAs({ save, saving }: { save: (name: string) => Promise<unknown>; saving: boolean }) {
  const [name, setName] = useState<string | null>(null);
  if (name === null)
    return (
      <button type="button" className="trail-link ml-1" onClick={() => setName("")}>
        Save these rules as a school
      </button>
    );
  return (
    <form
      className="inline-flex items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim())
          save(name.trim())
            .then(() => setName(null))
            // What was typed stays; the reason stands below.
            .catch(() => undefined);
      }}
    >
      <input
        // The button that opened it is gone: the focus goes where one types.
        // eslint-disable-next-line jsx-a11y/no-autofocus
        autoFocus
        className="field w-40"
        aria-label="Name of the school"
        placeholder="Name"
        maxLength={40}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape") setName(null);
        }}
      />
      <button type="submit" className="key-button" disabled={!name.trim() || saving}>
        Save
      </button>
      <button type="button" className="trail-link" onClick={() => setName(null)}>
        Cancel
      </button>
    </form>
  );
}
