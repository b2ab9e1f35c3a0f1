import type { Schemas } from "@/api/client";
import { Beam } from "@/marks/Beam";
import { DoseBar } from "@/marks/DoseBar";
import { Heads } from "@/frame/Heads";
import { LevelMark } from "@/marks/LevelMark";
import {
  MAIN_MEASURES,
  WHOLE_WEEK,
  amount,
  measureTitle,
  number,
  percent,
  ratio,
  signed,
  unit,
} from "@/words";

type Audit = Schemas["DraftAudit"];

/** What the draft comes to: totals, findings that cleared and appeared, pairs, muscles. */
export function Answer({ audit }: { audit: Audit }) {
  return (
    <>
      <Totals audit={audit} />
      <Findings audit={audit} />
      <Pairs audit={audit} />
      <Muscles audit={audit} />
    </>
  );
}

export function Totals({ audit }: { audit: Audit }) {
  return (
    <table className="mt-1 mb-3 w-full text-sm [&_.figure]:pl-2">
      <thead>
        <tr className="text-ink-2 italic">
          <Heads
            heads={[
              { says: "Measure", unseen: true },
              ...["draft", "plan", "baseline", "change"].map((says) => ({ says, figure: true })),
            ]}
          />
        </tr>
      </thead>
      <tbody>
        {audit.totals.map((row) => {
          const cell = row.cells[row.subject];
          if (!cell || !MAIN_MEASURES.includes(row.subject)) return null;
          const first = row.findings[0];
          const finding = first === undefined ? undefined : audit.findings[first];
          return (
            <tr key={row.subject} className="border-t border-hair">
              <th scope="row" className="flex items-center gap-2 py-0.5 text-left font-normal">
                <span>
                  {measureTitle(row.subject)}
                  {unit(row.subject) !== row.subject && (
                    <span className="text-ink-2">, {unit(row.subject)}</span>
                  )}
                </span>
                {finding && <LevelMark level={finding.level} />}
              </th>
              <td className={`figure ${cell.rough_planned ? "italic" : ""}`}>
                {amount(cell.planned, row.subject)}
              </td>
              <td className="figure text-ink-2">{amount(cell.done, row.subject)}</td>
              <td className="figure text-ink-2">
                {cell.base === null ? "–" : amount(cell.base, row.subject)}
              </td>
              <td className="figure">
                {cell.base !== null && cell.change !== null && (
                  <>
                    <span className="text-ink-2 max-md:block">
                      {signed(cell.planned - cell.base, row.subject)}
                    </span>{" "}
                    <span className="inline-block min-w-12">{percent(cell.change)}</span>
                  </>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
      {audit.as_planned && (
        <caption className="caption-bottom pt-1 text-left text-xs text-ink-2">
          This week lies ahead: its baseline takes the plans before it as done.
        </caption>
      )}
    </table>
  );
}

export function Findings({ audit, of = "draft" }: { audit: Audit; of?: string }) {
  const fresh = new Set(audit.appeared);
  return (
    <section aria-label={`Findings of the ${of}`}>
      <h2 className="border-b border-rule pb-0.5 font-semibold">
        {audit.findings.length === 0
          ? `Nothing open in the ${of}`
          : `${audit.findings.length} open in the ${of}`}
        <span className="font-normal text-ink-2">
          {audit.cleared.length > 0 && `, ${audit.cleared.length} cleared`}
          {fresh.size > 0 && `, ${fresh.size} new`}
        </span>
      </h2>
      <ul className="mb-3 text-sm" aria-live="polite">
        {audit.findings.map((one, at) => (
          <li
            key={`${one.code}/${one.subject}/${one.measure}`}
            className="flex gap-2 border-b border-hair py-1"
          >
            <span className="pt-0.5">
              <LevelMark level={one.level} />
            </span>
            <span>
              {fresh.has(at) && <span className="font-semibold">New: </span>}
              {one.sentence}
            </span>
          </li>
        ))}
        {audit.cleared.map((one) => (
          <li
            key={`${one.code}/${one.subject}/${one.measure}`}
            className="flex gap-2 border-b border-hair py-1 text-ink-2"
          >
            <span className="pt-0.5">
              <LevelMark level={one.level} struck />
            </span>
            <span>
              Cleared:{" "}
              <span className="line-through">
                {one.title.toLowerCase()},{" "}
                {one.subject === WHOLE_WEEK ? measureTitle(one.measure) : one.label}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Pairs({ audit }: { audit: Audit }) {
  return (
    <table className="mb-3 w-full text-sm">
      <caption className="border-b border-rule pb-0.5 text-left text-base font-semibold">
        Balance
      </caption>
      <tbody>
        {audit.pairs.map((pair) => {
          const side = pair.measures[pair.measure]?.planned;
          if (!side || (side.a === 0 && side.b === 0)) return null;
          return (
            <tr key={pair.subject} className="border-b border-hair">
              <th scope="row" className="text-left font-normal">
                {pair.label_a} : {pair.label_b}
              </th>
              <td className="w-36">
                <Beam
                  hollow
                  measure={pair.measure}
                  band={pair.band}
                  width={132}
                  ratios={MAIN_MEASURES.flatMap((measure) => {
                    const one = pair.measures[measure]?.planned;
                    return one
                      ? [{ measure, ratio: one.ratio, empty: one.a === 0 && one.b === 0 }]
                      : [];
                  })}
                />
              </td>
              <td className="figure w-12">{side.ratio === null ? "all : 0" : ratio(side.ratio)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

export function Muscles({ audit }: { audit: Audit }) {
  const max = Math.max(
    1,
    ...audit.muscles.flatMap((row) => [row.cells.sets?.planned ?? 0, row.band?.high ?? 0]),
  );
  return (
    <table className="w-full text-sm">
      <caption className="border-b border-rule pb-0.5 text-left text-base font-semibold">
        Muscles, sets
      </caption>
      <tbody>
        {audit.muscles.map((row) => {
          const cell = row.cells.sets;
          if (!cell) return null;
          const first = row.findings[0];
          const finding = first === undefined ? undefined : audit.findings[first];
          return (
            <tr key={row.subject} className="border-b border-hair">
              <td className="w-8">{finding && <LevelMark level={finding.level} />}</td>
              <th scope="row" className="text-left font-normal">
                {row.label}
              </th>
              <td className="w-40">
                <DoseBar
                  planned={cell.planned}
                  done={0}
                  base={cell.base}
                  band={row.band}
                  max={max}
                  width={150}
                />
              </td>
              <td className="figure w-10">{amount(cell.planned, "sets")}</td>
              <td className="figure w-14 text-ink-2">
                {row.band && `${number(row.band.low)}–${number(row.band.high)}`}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
