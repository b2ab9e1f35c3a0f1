import type { Schemas } from "@/api/client";
import { Findings, Muscles, Pairs, Totals } from "@/shared/DraftAnswer";
import { amount, count, number, unit, weight } from "@/words";

/** What the text comes to: by itself, the line in hand, and its week. */
export function Comes({ answer, line }: { answer: Schemas["Written"] | null; line: number }) {
  if (!answer) return <aside className="border-l border-rule px-5 py-4 text-ink-2">Reading…</aside>;
  const here = answer.lines.find((one) => one.line === line);
  return (
    // It scrolls and holds nothing to focus: the keyboard needs a hold of it.
    <aside
      aria-label="What it comes to"
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      className="min-h-0 overflow-auto border-l border-rule px-5 pt-3 pb-6"
    >
      <h2 className="flex items-baseline border-b border-rule pb-0.5 font-semibold">
        The session
        <span className="ml-auto">{number(answer.minutes, 0)} min</span>
      </h2>
      <Figures label="in all" sets={answer.sets} totals={answer.totals} />
      <div className={here ? "" : "invisible"} aria-live="off">
        <Figures
          label="this line"
          sets={here?.sets ?? 0}
          totals={here?.totals ?? {}}
          minutes={here?.minutes}
        />
      </div>
      <p className="mb-3 border-t border-hair pt-1 text-sm text-ink-2">
        {number(answer.work_s / 60, 1)} min of work, {number(answer.rest_s / 60, 1)} min of planned
        rest
        {answer.density !== null && answer.density > 0 && (
          <>; {weight(Math.round(answer.density))} a minute</>
        )}
        . An estimate from tempo and rests.
      </p>
      {answer.new_movements.length > 0 && (
        <p className="mb-3 border-l-4 border-note pl-3 text-sm">
          Not done in the last four weeks: {answer.new_movements.join(", ")}.
        </p>
      )}
      <h2 className="font-semibold">The week with it</h2>
      <Totals audit={answer.week} />
      <Findings audit={answer.week} of="week" />
      <Pairs audit={answer.week} />
      <Muscles audit={answer.week} />
    </aside>
  );
}

/** On a phone: the same in a line above the keyboard, of the line in hand where there is one. */
export function Strip({ answer, line }: { answer: Schemas["Written"]; line: number }) {
  const here = answer.lines.find((one) => one.line === line && one.sets > 0);
  const load = (totals: Record<string, number>) =>
    `${amount(totals.volume_load_kg ?? 0, "volume_load_kg")} ${unit("volume_load_kg")}`;
  return (
    <p
      aria-hidden
      className="no-print sticky bottom-0 z-10 order-9 flex justify-between gap-3 border-t border-rule bg-paper px-4 py-1.5 text-sm whitespace-nowrap md:hidden"
    >
      <span>
        <span className="font-semibold">{count(answer.sets, "set")}</span>,{" "}
        {number(answer.minutes, 0)} min, {load(answer.totals)}
      </span>
      {here && (
        <span className="truncate text-ink-2">
          this line {count(here.sets, "set")}, {load(here.totals)}
        </span>
      )}
    </p>
  );
}

function Figures({
  label,
  sets,
  totals,
  minutes,
}: {
  label: string;
  sets: number;
  totals: Record<string, number>;
  minutes?: number;
}) {
  return (
    <p className="flex items-baseline gap-3 py-0.5 text-sm">
      <span className="w-16 text-ink-2 italic">{label}</span>
      <span className="figure w-14">
        {sets} set{sets === 1 ? "" : "s"}
      </span>
      <span className="figure w-16">{amount(totals.reps ?? 0, "reps")} reps</span>
      <span className="figure w-20">
        {amount(totals.volume_load_kg ?? 0, "volume_load_kg")} {unit("volume_load_kg")}
      </span>
      <span className="figure w-14">{amount(totals.tut_s ?? 0, "tut_s")} s</span>
      {minutes !== undefined && <span className="figure ml-auto">{number(minutes, 0)} min</span>}
    </p>
  );
}
