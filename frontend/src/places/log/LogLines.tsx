import type { Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { LineRows } from "./LineRows";
import type { LogSession } from "./log";
import { type EditSets, useLines } from "./useLines";

interface Props {
  place: WeekPlace;
  one: LogSession;
  names: Schemas["MovementName"][];
  edit: EditSets;
}

/** Set by set: what was planned, what was done, and in words what differed. */
export function LogLines({ place, one, names, edit }: Props) {
  const lines = useLines(place, one, names, edit);
  return (
    <table className="phone-rows set-rows w-full table-fixed text-sm">
      <colgroup>
        <col className="w-7 max-md:w-5" />
        <col className="w-90 max-lg:w-52 max-md:w-27" />
        <col className="w-44 max-md:w-auto" />
        <col className="max-md:w-0" />
        <col className="w-56 max-lg:w-48 max-md:w-24" />
      </colgroup>
      <thead>
        <tr className="border-b border-rule text-left text-ink-2 italic">
          <td />
          <th scope="col" className="pb-0.5 font-normal">
            planned
          </th>
          <th scope="col" className="pb-0.5 font-normal">
            done, if otherwise
          </th>
          <th scope="col" className="pb-0.5 font-normal max-md:invisible">
            what differed
          </th>
          <td />
        </tr>
      </thead>
      <tbody>
        {one.lines.map((line, index) => (
          // A planned set is known by its place: what is being typed there stays when it is logged.
          <LineRows
            key={line.at === null ? `done ${line.done_at}` : line.at}
            one={one}
            index={index}
            lines={lines}
          />
        ))}
      </tbody>
      <caption className="sr-only">Planned and done, set by set</caption>
      <datalist id="log-movements">
        {names.map((name) => (
          <option key={name.name} value={name.name} />
        ))}
      </datalist>
    </table>
  );
}
