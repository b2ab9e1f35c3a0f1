import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { DoseBar } from "@/marks/DoseBar";
import { LevelMark } from "@/marks/LevelMark";
import { WeekKind } from "@/shared/WeekKind";
import { MAIN_MEASURES, amount, measureTitle, unit, weekName } from "@/words";

interface Props {
  athlete: number;
  weeks: Schemas["BlockWeek"][];
  /** Rows below. */
  children: ReactNode;
}

/** Below each week: its four measures with the baseline, and the findings it has or would raise. */
export function WeekFoot({ athlete, weeks, children }: Props) {
  return (
    <tfoot>
      <tr className="border-t border-rule">
        <th scope="row" className="py-1 pr-2 text-left text-sm font-normal">
          the week is
        </th>
        {weeks.map((one) => (
          <td key={one.week} className="px-2 py-1">
            <WeekKind
              place={{ athlete, week: one.week }}
              kind={one.kind}
              name={`${weekName(one.week)} is`}
            />
          </td>
        ))}
      </tr>
      {MAIN_MEASURES.map((measure) => {
        const max = Math.max(
          1,
          ...weeks.flatMap((one) => [
            one.planned[measure] ?? 0,
            one.done[measure] ?? 0,
            one.base?.[measure] ?? 0,
            one.allowed?.[measure] ?? 0,
          ]),
        );
        return (
          <tr key={measure} className="border-t border-hair">
            <th scope="row" className="pr-2 text-left text-sm font-normal">
              {measureTitle(measure)}
              {unit(measure) !== measure && <span className="text-ink-2">, {unit(measure)}</span>}
            </th>
            {weeks.map((one) => (
              <td key={one.week} className="px-2">
                <span className="flex items-center gap-2 text-sm">
                  <DoseBar
                    planned={one.planned[measure] ?? 0}
                    done={one.done[measure] ?? 0}
                    base={one.base?.[measure] ?? null}
                    band={bandOf(one, measure)}
                    max={max}
                    width={72}
                  />
                  <span className="figure ml-auto">
                    {amount((one.over ? one.done : one.planned)[measure] ?? 0, measure)}
                  </span>
                </span>
              </td>
            ))}
          </tr>
        );
      })}
      <tr className="border-t border-rule">
        <th scope="row" className="py-1 pr-2 text-left align-top text-sm font-normal">
          findings
        </th>
        {weeks.map((one) => (
          <td key={one.week} className="px-2 py-1 align-top text-sm">
            {one.counts.high + one.counts.caution === 0 ? (
              <span className="text-ink-2">{one.planned.sets || one.done.sets ? "none" : ""}</span>
            ) : (
              <>
                <span className="flex items-center gap-1.5">
                  {(["high", "caution"] as const).map(
                    (level) =>
                      one.counts[level] > 0 && (
                        <span key={level} className="flex items-center gap-1">
                          <LevelMark level={level} />
                          <span className="font-semibold">{one.counts[level]}</span>
                        </span>
                      ),
                  )}
                </span>
                <span className="line-clamp-2 text-xs text-ink-2" title={one.first ?? ""}>
                  {one.first}
                </span>
              </>
            )}
          </td>
        ))}
      </tr>
      {children}
    </tfoot>
  );
}

/** From the baseline to where a jump would begin. */
function bandOf(week: Schemas["BlockWeek"], measure: string): { low: number; high: number } | null {
  const low = week.base?.[measure];
  const high = week.allowed?.[measure];
  return low !== undefined && high !== undefined && low > 0 ? { low, high } : null;
}
