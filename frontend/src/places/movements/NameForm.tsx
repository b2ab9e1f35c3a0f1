import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { movement as calls } from "@/api/movements";
import { MovementInput } from "@/shared/MovementInput";
import { count } from "@/words";
import { AlteredSheets } from "./Effect";

type Effect = Schemas["NameEffect"];

interface Props {
  one: Schemas["MovementOut"];
  all: Schemas["MovementOut"][];
  close: (name: string | null) => void;
}

/** Another name for a movement. The name of one that is there makes one of the two. */
export function NameForm({ one, all, close }: Props) {
  const [name, setName] = useState(one.name);
  const [effect, setEffect] = useState<Effect | null>(null);
  const look = useLook(async () => setEffect(await calls.naming(one.id, name)));
  const give = useChange(async () => close((await calls.giveName(one.id, name)).name));
  const error = look.error ?? give.error;
  const others = all.map((other) => other.name).filter((other) => other !== one.name);
  return (
    <form
      className="text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        (effect ? give : look).mutate(undefined);
      }}
    >
      <h2 className="double-rule mb-2 pb-1 text-lg font-semibold">Rename {one.name}</h2>
      <label className="block">
        New name, or the movement to merge it with
        <MovementInput
          value={name}
          names={others}
          put={(typed) => {
            setName(typed);
            setEffect(null);
          }}
          className="w-full"
        />
      </label>
      {error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-2">
          {error.message}
        </p>
      )}
      {effect && <WhatChanges old={one.name} name={name} effect={effect} />}
      <p className="mt-3 flex gap-3">
        <button
          type="submit"
          className={effect ? "ink-button" : "key-button"}
          disabled={look.isPending || give.isPending || !name.trim()}
        >
          {!effect ? "What does it change?" : effect.into ? `Merge with ${effect.into}` : "Rename"}
        </button>
        <button type="button" className="key-button" onClick={() => close(null)}>
          Cancel
        </button>
      </p>
    </form>
  );
}

/** What goes over to the new name, and what stays. */
function WhatChanges({ old, name, effect }: { old: string; name: string; effect: Effect }) {
  const goes = [
    effect.planned && count(effect.planned, "planned set"),
    effect.done && `${count(effect.done, "set")} done`,
    effect.maxima && `${effect.maxima} typed ${effect.maxima === 1 ? "maximum" : "maxima"}`,
    effect.goals && count(effect.goals, "goal"),
    effect.restrictions && count(effect.restrictions, "restriction"),
    effect.judged && count(effect.judged, "decision"),
    effect.drafts && count(effect.drafts, "draft"),
  ].filter(Boolean);
  return (
    <section aria-label="What it changes" className="mt-3 space-y-1 border-l-4 border-caution pl-3">
      <p>
        {goes.length === 0
          ? "Nothing is planned or done of it."
          : `${goes.join(", ")} of ${count(effect.athletes, "athlete")} will say ${effect.into ?? name}.`}
      </p>
      <p>
        “{old}” stays one of its other names: texts, templates and spreadsheets that use it are
        still read. What was signed stays as it was signed.
      </p>
      {effect.keeps.length > 0 && (
        <p>
          {effect.keeps.join(", ")}: {effect.keeps.length === 1 ? "has" : "have"} a movement of that
          name that counts differently; it stays as it is.
        </p>
      )}
      {effect.into && (
        <>
          <p>
            It counts as {effect.into} does, in past weeks, too.
            {effect.sheets.length === 0 &&
              ` No total and no finding of the last ${effect.weeks_looked_at} weeks changes.`}
          </p>
          <AlteredSheets sheets={effect.sheets} />
        </>
      )}
      <p>The journal can undo it for thirty days.</p>
    </section>
  );
}
