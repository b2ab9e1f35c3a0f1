import type { Basis } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { KEYS } from "@/frame/keys";
import { BASIS_WORDS, weekName } from "@/words";
import { SchoolsDialog } from "@/shared/SchoolsDialog";
import type { Sheet } from "./open";

const BASELINES: Record<string, string> = {
  mean_4: "average of ",
  last_week: "",
  ewma: "weighted average of ",
};

interface Props {
  place: WeekPlace;
  sheet: Sheet;
  basis: Basis;
  swap: () => void;
}

/** Which of plan and log is judged, against which weeks. */
export function SheetHead({ place, sheet, basis, swap }: Props) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-1">
      <fieldset className="no-print flex items-baseline gap-1">
        <legend className="sr-only">Judge what was</legend>
        <span className="mr-1 text-sm text-ink-2 italic">Judged:</span>
        {(["completed", "planned"] as const).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === basis}
            onClick={() => one !== basis && swap()}
            title={`Key ${KEYS.basis.key}`}
            className={`border px-2.5 text-sm ${one === basis ? "border-ink bg-ink text-sheet" : "border-rule text-ink-2 hover:text-ink"}`}
          >
            {BASIS_WORDS[one]}
          </button>
        ))}
      </fieldset>
      <p className="text-sm text-ink-2">
        {sheet.sessions_planned > 0
          ? `${sheet.sessions_done} of ${sheet.sessions_planned} planned sessions done.`
          : "Nothing was planned."}{" "}
        Baseline:{" "}
        {sheet.baseline_weeks.length
          ? (BASELINES[sheet.baseline] ?? "") + summary(sheet.baseline_weeks)
          : "none, no trained week before this one"}
        . {sheet.baseline_left_out}
      </p>
      <SchoolsDialog place={place} basis={basis} />
    </div>
  );
}

function summary(weeks: string[]): string {
  if (weeks.length > 5) return `${weeks.length} weeks from ${lowered(weeks[0] ?? "")}`;
  const [last, ...before] = weeks.map((week) => lowered(week).replace("week ", "")).reverse();
  if (before.length === 0) return `week ${last}`;
  return `weeks ${before.reverse().join(", ")} and ${last}`;
}

const lowered = (week: string) => weekName(week).toLowerCase();
