import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { movement as calls } from "@/api/movements";
import { MovementInput } from "@/shared/MovementInput";
import { MovementForm } from "./MovementForm";
import { Text } from "./MovementFields";
import { type Typed, plain, typedOf } from "./typed";
import { useTyped } from "@/frame/useTyped";

type Level = NonNullable<Schemas["LikeBody"]["level"]> | "";

interface Props {
  all: Schemas["MovementsOut"];
  close: (name: string | null) => void;
}

/** A new movement in three answers: its name, what it is like, and how hard beside that. */
export function NewMovement({ all, close }: Props) {
  const [name, setName] = useTyped("name of a movement");
  const [model, setModel] = useState("");
  const [level, setLevel] = useState<Level>("");
  const [inFull, setInFull] = useState<Typed | null>(null);
  const known = all.movements.find((one) => one.name.toLowerCase() === model.trim().toLowerCase());
  const add = useChange(async () => {
    close((await calls.addLike({ name, like: model, level: level || null })).name);
  });
  if (inFull) return <MovementForm one={null} start={inFull} all={all} close={close} />;
  return (
    <form
      className="text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate(undefined);
      }}
    >
      <h2 className="double-rule mb-2 pb-1 text-lg font-semibold">A new movement</h2>
      <Text label="Name" value={name} put={setName} />
      <label className="mt-1 block">
        It is like
        <MovementInput
          value={model}
          names={all.movements.map((one) => one.name)}
          put={setModel}
          className="w-full"
        />
      </label>
      <label className="mt-1 block">
        Compared with it
        <select
          value={level}
          onChange={(event) => setLevel(event.target.value as Level)}
          className="field mt-0.5 block h-8 w-full"
        >
          <option value="">about as hard</option>
          <option value="easier">easier</option>
          <option value="harder">harder</option>
        </select>
      </label>
      {known && (
        <p className="mt-2 text-ink-2">
          Counts as {known.name} does: {plain(known.pattern)}, {known.direct.map(plain).join(", ")}
          {known.indirect.length > 0 && `; a part for ${known.indirect.map(plain).join(", ")}`}.
          Kit: {known.kit.join(", ") || "none"}.
        </p>
      )}
      {!known && model.trim() !== "" && (
        <p className="mt-2 text-ink-2">
          Choose the movement from the list, or describe it in full.
        </p>
      )}
      {add.error && (
        <p role="alert" className="mt-2 border-l-4 border-high pl-2 whitespace-pre-line">
          {add.error.message}
        </p>
      )}
      <p className="mt-3 flex flex-wrap gap-3">
        <button
          type="submit"
          className="ink-button"
          disabled={add.isPending || !known || !name.trim()}
        >
          Add it
        </button>
        <button
          type="button"
          className="key-button"
          onClick={() =>
            setInFull({ ...typedOf(known ?? null), name, aliases: "", easier: "", harder: "" })
          }
        >
          Describe it in full
        </button>
        <button type="button" className="key-button" onClick={() => close(null)}>
          Cancel
        </button>
      </p>
    </form>
  );
}
