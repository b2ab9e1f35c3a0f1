import { useNavigate } from "react-router";
import type { Schemas } from "@/api/client";
import { weekPath } from "@/frame/places";
import { signed, unit, weekName } from "@/words";

/** Which audits a change alters: it counts the new way in past weeks, too, so that weeks compare. */
export function Effect({ effect }: { effect: Schemas["MovementEffect"] }) {
  return (
    <section aria-label="What it changes" className="mt-3 border-l-4 border-caution pl-3">
      <p>
        {effect.sets === 0
          ? "No set of it is planned or done."
          : `${effect.sets} sets of ${effect.athletes} athlete${effect.athletes === 1 ? "" : "s"} are of it.`}{" "}
        {effect.sheets.length === 0
          ? `No total and no finding of the last ${effect.weeks_looked_at} weeks changes.`
          : `Totals or findings change in ${effect.sheets.length} week sheet${effect.sheets.length === 1 ? "" : "s"} of the last ${effect.weeks_looked_at} weeks. Past weeks are counted the new way, too, so that weeks compare.`}
      </p>
      <AlteredSheets sheets={effect.sheets} />
    </section>
  );
}

/** The week sheets whose figures change, each a link. */
export function AlteredSheets({ sheets }: { sheets: Schemas["MovementEffectSheet"][] }) {
  const go = useNavigate();
  return (
    <ul className="max-h-60 overflow-auto">
      {sheets.map((one) => (
        <li key={`${one.athlete}/${one.week}`} className="border-b border-hair py-1">
          <button
            type="button"
            className="trail-link"
            onClick={() => go(weekPath(one.athlete, one.week, "sheet"))}
          >
            {one.name}, {weekName(one.week).toLowerCase()}
          </button>
          {one.signed && <span className="text-caution"> signed</span>}
          {(one.sets !== 0 || one.volume_load_kg !== 0 || one.tut_s !== 0) && (
            <span className="text-ink-2">
              : {signed(one.sets, "sets")} sets, {signed(one.volume_load_kg, "volume_load_kg")}{" "}
              {unit("volume_load_kg")}, {signed(one.tut_s, "tut_s")} s
            </span>
          )}
          {one.appeared.length > 0 && <p>new: {one.appeared.join("; ")}</p>}
          {one.cleared.length > 0 && <p>gone: {one.cleared.join("; ")}</p>}
        </li>
      ))}
    </ul>
  );
}
