import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useChange } from "@/api/changes";
import { logs } from "@/api/log";
import type { WeekPlace } from "@/api/place";

type Why = NonNullable<Schemas["MissedBody"]["why"]>;

interface Props {
  place: WeekPlace;
  plan: Schemas["PlanOut"];
  reasons: Schemas["MissedChoice"][];
}

/** Why a session that is due was not done; the week sheet then says so. */
export function MissedWhy({ place, plan, reasons }: Props) {
  const [note, setNote] = useState(plan.missed?.note ?? "");
  const say = useChange((body: Schemas["MissedBody"]) => logs.missed(place, body));
  const why = plan.missed?.why ?? "";
  const put = (next: string, words: string) =>
    say.mutate({ plan: plan.id, why: next === "" ? null : (next as Why), note: words });
  return (
    <p className="flex flex-wrap items-baseline gap-3 py-1 text-sm">
      <label>
        Missed because{" "}
        <select
          value={why}
          disabled={say.isPending}
          onChange={(event) => put(event.target.value, note)}
          className="field py-0"
        >
          <option value="">no reason given</option>
          {reasons.map((one) => (
            <option key={one.why} value={one.why}>
              {one.says}
            </option>
          ))}
        </select>
      </label>
      {why !== "" && (
        <input
          aria-label="Anything else about it"
          placeholder="in your own words"
          maxLength={200}
          value={note}
          onChange={(event) => setNote(event.target.value)}
          onBlur={() => note !== (plan.missed?.note ?? "") && put(why, note)}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          className="field w-64 py-0"
        />
      )}
      {say.error && (
        <span role="alert" className="text-high">
          {say.error.message}
        </span>
      )}
    </p>
  );
}
