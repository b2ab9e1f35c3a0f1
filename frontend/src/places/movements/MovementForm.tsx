import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange, useLook } from "@/api/changes";
import { movement as calls } from "@/api/movements";
import { Effect } from "./Effect";
import { MovementFields, Text } from "./MovementFields";
import { type Typed, coreOf, typedOf } from "./typed";

type Known = Schemas["MovementOut"];

interface Props {
  /** The movement to change; null for a new one. */
  one: Known | null;
  /** What a new one begins with. */
  start?: Typed;
  all: Schemas["MovementsOut"];
  close: (name: string | null) => void;
}

/** A movement to change or to add; what a change alters in past audits is shown before it is kept. */
export function MovementForm({ one, start, all, close }: Props) {
  const [typed, setTyped] = useState(() => start ?? typedOf(one));
  const [effect, setEffect] = useState<Schemas["MovementEffect"] | null>(null);
  const put = (part: Partial<Typed>) => {
    setTyped((now) => ({ ...now, ...part }));
    setEffect(null);
  };
  const body = { movement: coreOf(typed) };
  const look = useLook(async () => {
    if (one) setEffect(await calls.effect(one.id, body));
  });
  const save = useChange(async () =>
    close((one ? await calls.save(one.id, body) : await calls.add(body)).name),
  );
  const error = look.error ?? save.error;
  const names = all.movements.map((other) => other.name).filter((name) => name !== one?.name);
  return (
    <form
      className="text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (one && !effect) look.mutate(undefined);
        else save.mutate(undefined);
      }}
    >
      <h2 className="double-rule mb-2 pb-1 text-lg font-semibold">
        {one ? one.name : "A new movement"}
      </h2>
      {!one && <Text label="Name" value={typed.name} put={(name) => put({ name })} />}
      <MovementFields typed={typed} all={all} names={names} put={put} />
      {error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-2 whitespace-pre-line">
          {error.message}
        </p>
      )}
      {effect && <Effect effect={effect} />}
      <p className="mt-3 flex gap-3">
        <button
          type="submit"
          className={effect || !one ? "ink-button" : "key-button"}
          disabled={look.isPending || save.isPending}
        >
          {!one
            ? "Add it"
            : effect
              ? "Save the change"
              : look.isPending
                ? "Counting the past weeks…"
                : "What does it change?"}
        </button>
        <button type="button" className="key-button" onClick={() => close(null)}>
          Cancel
        </button>
      </p>
    </form>
  );
}
