import { useChange } from "@/api/changes";
import { logs } from "@/api/log";
import { type WeekPlace } from "@/api/place";
import { day } from "@/words";
import type { LogSession } from "./log";

/** A log that was changed in two places: both, side by side, until somebody decides. */
export function Versions({ place, one }: { place: WeekPlace; one: LogSession }) {
  const decide = useChange(({ id, keep }: { id: number; keep: "stored" | "other" }) =>
    logs.decide(place.athlete, id, keep),
  );
  return one.versions.map((version) => (
    <section
      key={version.id}
      aria-label="Two versions"
      className="my-2 border-l-4 border-caution bg-paper px-4 py-2 text-sm"
    >
      <p className="font-semibold">
        This session was changed in two places. Both are kept: which one is right?
      </p>
      {version.apart.length === 0 ? (
        <p>Both agree on every set.</p>
      ) : (
        <table className="my-1">
          <thead>
            <tr className="text-left text-ink-2">
              <th scope="col" className="pr-6 font-normal italic">
                apart
              </th>
              <th scope="col" className="pr-6 font-normal italic">
                the saved one
              </th>
              <th scope="col" className="font-normal italic">
                the other one, received {day(version.day)}
              </th>
            </tr>
          </thead>
          <tbody>
            {version.apart.map((row) => (
              <tr key={row.what} className="border-t border-hair align-top">
                <th scope="row" className="pr-6 text-left font-normal">
                  {row.what}
                </th>
                <td className="pr-6">{row.stored || "nothing"}</td>
                <td>{row.other || "nothing"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-1 flex gap-3">
        <button
          type="button"
          className="key-button"
          disabled={decide.isPending}
          onClick={() => decide.mutate({ id: version.id, keep: "stored" })}
        >
          Keep the saved one
        </button>
        <button
          type="button"
          className="key-button"
          disabled={decide.isPending}
          onClick={() => decide.mutate({ id: version.id, keep: "other" })}
        >
          Use the other one
        </button>
      </p>
    </section>
  ));
}
