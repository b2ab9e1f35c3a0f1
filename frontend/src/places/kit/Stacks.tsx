import { keptWeight, typedWeight, weightUnit } from "@/words";
import { NumberField, Remove, Words } from "./fields";
import { replaced, without } from "./parse";
import type { Room, Stack } from "./room";

interface Props {
  room: Room;
  put: (part: Partial<Room>) => void;
}

/** A stack to begin with, in round figures of the unit that is shown. */
const FIRST = (): Stack => ({
  name: "new stack",
  least_kg: keptWeight(5),
  step_kg: keptWeight(5),
  top_kg: keptWeight(100),
  movements: [],
});

/** The machines with a pin. */
export function Stacks({ room, put }: Props) {
  return (
    <>
      {room.stacks.map((stack, at) => (
        <One
          key={at}
          stack={stack}
          number={at + 1}
          put={(part) => put({ stacks: replaced(room.stacks, at, { ...stack, ...part }) })}
          remove={() => put({ stacks: without(room.stacks, at) })}
        />
      ))}
      <button
        type="button"
        className="trail-link min-h-6 text-sm"
        onClick={() =>
          put({
            stacks: [...room.stacks, FIRST()],
          })
        }
      >
        Another stack
      </button>
    </>
  );
}

interface OneProps {
  stack: Stack;
  number: number;
  put: (part: Partial<Stack>) => void;
  remove: () => void;
}

function One({ stack, number, put, remove }: OneProps) {
  return (
    <div className="mb-1 border-b border-hair pb-1 text-sm">
      <span className="flex items-baseline gap-2">
        <input
          aria-label={`Stack ${number}, name`}
          value={stack.name}
          onChange={(event) => put({ name: event.target.value })}
          className="h-6 w-32 border-b border-rule bg-transparent font-semibold"
        />
        {(["least_kg", "step_kg", "top_kg"] as const).map((field) => (
          <label key={field} className="text-ink-2">
            {field === "least_kg" ? "from" : field === "step_kg" ? "by" : "to"}{" "}
            <NumberField
              label={`${stack.name}, ${field.replace("_kg", "")} ${weightUnit()}`}
              value={typedWeight(stack[field])}
              put={(typed) => put({ [field]: keptWeight(typed) })}
            />
          </label>
        ))}
        <Remove what={stack.name} act={remove} />
      </span>
      <Words
        label={`${stack.name}, movements`}
        value={(stack.movements ?? []) as string[]}
        hint="movements, if not those with this kit"
        put={(movements) => put({ movements })}
      />
    </div>
  );
}
