import { keptWeight, typedWeight, weight, weightUnit } from "@/words";
import { NumberField, Remove } from "./fields";
import { replaced, without } from "./parse";
import type { Room } from "./room";

interface Props {
  room: Room;
  put: (part: Partial<Room>) => void;
}

/** The pairs of plates, and the smallest step that they allow on a bar. */
export function Plates({ room, put }: Props) {
  return (
    <>
      <table className="text-sm">
        <thead>
          <tr className="text-left text-ink-2 italic">
            <th className="w-24 font-normal" scope="col">
              {weightUnit()}
            </th>
            <th className="w-24 font-normal" scope="col">
              pairs
            </th>
            <td />
          </tr>
        </thead>
        <tbody>
          {(room.plates ?? []).map((plate, at) => (
            // Plates have no name but their place.
            <tr key={at}>
              <td>
                <NumberField
                  label={`Plate ${at + 1}, ${weightUnit()}`}
                  value={typedWeight(plate.kg)}
                  put={(typed) =>
                    put({
                      plates: replaced(room.plates, at, { ...plate, kg: keptWeight(typed) }),
                    })
                  }
                />
              </td>
              <td>
                <NumberField
                  label={`Plate ${at + 1}, pairs`}
                  value={plate.pairs}
                  put={(pairs) => put({ plates: replaced(room.plates, at, { ...plate, pairs }) })}
                />
              </td>
              <td>
                <Remove
                  what={`plate ${at + 1}`}
                  act={() => put({ plates: without(room.plates, at) })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="trail-link min-h-6 text-sm"
        onClick={() => put({ plates: [...room.plates, { kg: keptWeight(2.5), pairs: 1 }] })}
      >
        Another weight
      </button>
      <Step loads={room.bars_kg.length > 0 ? room.plates.map((one) => one.kg * 2) : []} />
    </>
  );
}

/** The smallest step that bar and plates allow. */
function Step({ loads }: { loads: number[] }) {
  return loads.length === 0 ? null : (
    <p className="mt-1 text-sm text-ink-2">
      The smallest step on a bar is {weight(Math.min(...loads))}.
    </p>
  );
}
