import { Fragment, useState } from "react";
import type { Basis, Schemas } from "@/api/client";
import { KEYS, useKeys } from "@/frame/keys";
import { Beam, MeasureGlyph } from "@/marks/Beam";
import { type Columns, useColumns } from "@/frame/useColumns";
import { useRoom } from "@/frame/useRoom";
import { DoseBar } from "@/marks/DoseBar";
import { LevelMark } from "@/marks/LevelMark";
import {
  MAIN_MEASURES,
  amount,
  measureTitle,
  measuresOf,
  number,
  percent,
  ratio,
  share,
  shortTitle,
  signed,
  unit,
} from "@/words";
import { walkFigures } from "./walk";
import type { Sheet } from "./open";

type Row = Schemas["Row"];
type Cell = Schemas["Cell"];
type PairRow = Schemas["PairRow"];

interface Props {
  sheet: Sheet;
  /** The row of the selected finding. */
  selected: string | null;
  openFigure: (figure: string, of: Basis) => void;
  openFinding: (at: number) => void;
}

const MEASURES = measuresOf("movement");
const OF_MUSCLES = measuresOf("muscle");

/** The sheet itself: totals, pairs, muscles, movements, one column for each kind of figure. */
export function Ledger({ sheet, selected, openFigure, openFinding }: Props) {
  const [measure, setMeasure] = useState("sets");
  useKeys({
    measure: () =>
      setMeasure((now) => MEASURES[(MEASURES.indexOf(now) + 1) % MEASURES.length] ?? "sets"),
  });
  const figures = useColumns(FIGURES);
  const pairs = useColumns(PAIRS);
  const common = { sheet, selected, openFigure, openFinding };
  const ofMuscles = OF_MUSCLES.includes(measure) ? measure : "sets";
  return (
    // The arrows walk the figures; each of them is a button of its own.
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions
    <div onKeyDown={walkFigures}>
      <Section title="The week" columns={figures} double>
        {sheet.totals.map((row) => (
          <FigureRow
            key={row.subject}
            row={row}
            columns={figures}
            measure={row.subject}
            {...common}
            label={
              <>
                {capital(measureTitle(row.subject))}{" "}
                <span className="text-ink-2">
                  {row.subject === unit(row.subject) ? "" : unit(row.subject)}
                </span>
              </>
            }
          />
        ))}
      </Section>
      {(sheet.estimated_sets > 0 || sheet.assumed_sets > 0) && (
        <p className="-mt-3.5 mb-5 text-sm text-ink-2 italic">
          {[
            sheet.estimated_sets > 0 &&
              `${sheet.estimated_sets} sets with reps estimated from their seconds`,
            sheet.assumed_sets > 0 && `${sheet.assumed_sets} sets with an assumed tempo`,
          ]
            .filter(Boolean)
            .join("; ")}
          . What rests on them stands in italics, hatched.
        </p>
      )}
      <Section
        title="Balance"
        note={sheet.basis === "completed" ? "done, below it planned" : "planned, below it done"}
        columns={pairs}
      >
        {sheet.pairs.map((pair) => (
          <PairLine key={pair.subject} pair={pair} columns={pairs} {...common} />
        ))}
      </Section>
      <Section
        title="Muscles"
        columns={figures}
        measure={ofMuscles}
        setMeasure={setMeasure}
        measures={OF_MUSCLES}
      >
        {sheet.muscles.map((row) => (
          <FigureRow
            key={row.subject}
            row={row}
            columns={figures}
            measure={ofMuscles}
            max={maximum(sheet.muscles, ofMuscles)}
            {...common}
            label={capital(row.label)}
          />
        ))}
      </Section>
      <Section
        title="Movements"
        columns={figures}
        measure={measure}
        setMeasure={setMeasure}
        measures={MEASURES}
      >
        {sheet.movements.map((row) => (
          <FigureRow
            key={row.subject}
            row={row}
            columns={figures}
            measure={measure}
            max={maximum(sheet.movements, measure)}
            {...common}
            label={row.label}
          />
        ))}
      </Section>
    </div>
  );
}

/** The columns with their widths in pixels. */
const FIGURES = { planned: 72, done: 66, share: 54, baseline: 72, change: 124, band: 68 };
const PAIRS = {
  // The glyph of the measure, and its name.
  ...Object.fromEntries(
    MAIN_MEASURES.map((measure) => [measure, 40 + 6 * shortTitle(measure).length]),
  ),
  baseline: 78,
  band: 78,
};
const inWords = (heads: string[]) =>
  heads.map((head) => (MAIN_MEASURES.includes(head) ? shortTitle(head) : head)).join(", ");
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function maximum(rows: Row[], measure: string): number {
  return Math.max(
    1e-9,
    ...rows.flatMap((row) => {
      const cell = row.cells[measure];
      const band = measure === "sets" && row.band ? row.band.high : 0;
      return cell ? [cell.planned, cell.done, cell.base ?? 0, band] : [];
    }),
  );
}

function Section({
  title,
  columns,
  children,
  measure,
  setMeasure,
  measures,
  double,
  note,
}: {
  title: string;
  columns: Columns;
  children: React.ReactNode;
  measure?: string;
  setMeasure?: (measure: string) => void;
  measures?: string[];
  double?: boolean;
  note?: string;
}) {
  const room = useRoom();
  const narrow = room === "phone";
  const beside = (
    <>
      {note}
      {measures && (
        <select
          aria-label={`${title} by`}
          value={measure}
          title={`Key ${KEYS.measure.key}`}
          onChange={(event) => setMeasure?.(event.target.value)}
          className="no-print -ml-1 min-h-6 bg-sheet text-ink underline decoration-rule decoration-dotted underline-offset-3"
        >
          {measures.map((one) => (
            <option key={one} value={one}>
              {measureTitle(one)}
              {unit(one) !== one && `, ${unit(one)}`}
            </option>
          ))}
        </select>
      )}
    </>
  );
  return (
    <table
      className={`mb-5 w-full table-fixed border-b border-rule ${double ? "double-rule" : ""}`}
    >
      <colgroup>
        <col className="w-8" />
        <col />
        {!narrow && <col className={room === "tablet" ? "w-28" : "w-44"} />}
        {columns.heads.map((head) => (
          <col key={head} style={{ width: columns.width(head) }} />
        ))}
      </colgroup>
      <thead>
        <tr className="sticky -top-3 border-b border-rule bg-sheet text-sm text-ink-2 italic">
          <th
            className="py-1 text-left font-semibold text-ink not-italic"
            colSpan={2}
            scope="colgroup"
          >
            {title}
            {narrow && <span className="block font-normal text-ink-2 italic">{beside}</span>}
            {columns.turn && (
              <button
                type="button"
                className="trail-link no-print min-h-6 text-left text-sm font-normal text-ink-2"
                aria-label={`${title}: show ${inWords(columns.turn.to)}`}
                onClick={columns.turn.go}
              >
                show {inWords(columns.turn.to)}
              </button>
            )}
          </th>
          {!narrow && <th className="py-1 text-left font-normal">{beside}</th>}
          {columns.heads.map((head) => (
            <th key={head} className="figure py-1 font-normal" scope="col">
              {MAIN_MEASURES.includes(head) ? (
                <span className="inline-flex items-center gap-1">
                  <MeasureGlyph measure={head} />
                  {shortTitle(head)}
                </span>
              ) : (
                head
              )}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}

function Margin({
  at,
  sheet,
  openFinding,
}: {
  at: number[];
  sheet: Sheet;
  openFinding: (at: number) => void;
}) {
  const first = at[0];
  const finding = first === undefined ? undefined : sheet.findings[first];
  if (first === undefined || !finding) return <td />;
  return (
    <td className="align-middle">
      <button
        type="button"
        tabIndex={-1}
        onClick={() => openFinding(first)}
        title={finding.sentence}
        aria-label={`Finding: ${finding.sentence}`}
        className="flex"
      >
        <LevelMark level={finding.level} struck={finding.accepted} />
      </button>
    </td>
  );
}

const rowClass = (on: boolean) =>
  `border-b border-hair last:border-b-0 ${on ? "bg-band/60" : "hover:bg-band/30"}`;

function FigureRow({
  row,
  columns,
  measure,
  max,
  label,
  sheet,
  selected,
  openFigure,
  openFinding,
}: Omit<Props, "sheet"> & {
  row: Row;
  columns: Columns;
  measure: string;
  max?: number;
  label: React.ReactNode;
  sheet: Sheet;
}) {
  const room = useRoom();
  const cell = row.cells[measure];
  if (!cell) return null;
  const value = sheet.basis === "completed" ? cell.done : cell.planned;
  const rough = sheet.basis === "completed" ? cell.rough_done : cell.rough_planned;
  const band = measure === "sets" ? row.band : null;
  const weak = sheet.basis === "completed" ? "planned" : "completed";
  const figure = (of: Basis) => (
    <FigureCell cell={cell} of={of} measure={measure} openFigure={openFigure} weak={of === weak} />
  );
  const cells: Record<string, React.ReactNode> = {
    planned: figure("planned"),
    done: figure("completed"),
    share: <td className="figure text-ink-2">{share(cell.share)}</td>,
    baseline: (
      <td className="figure text-ink-2">{cell.base === null ? "–" : amount(cell.base, measure)}</td>
    ),
    change: (
      <td className="figure">
        {cell.base !== null && value !== cell.base && (
          <>
            <span className="text-sm text-ink-2 max-md:not-print:block">
              {signed(value - cell.base, measure)}
            </span>{" "}
            {cell.change !== null && (
              <span className="inline-block min-w-13">{percent(cell.change)}</span>
            )}
          </>
        )}
        {cell.base !== null && value === cell.base && <span className="text-ink-2">same</span>}
      </td>
    ),
    band: (
      <td className="figure text-ink-2">
        {band ? `${number(band.low)}–${number(band.high)}` : ""}
      </td>
    ),
  };
  return (
    <tr data-row={row.subject} className={rowClass(selected === row.subject)}>
      <Margin at={row.findings} sheet={sheet} openFinding={openFinding} />
      <th scope="row" className="py-0.5 pr-2 text-left font-normal md:truncate" title={row.label}>
        {label}
      </th>
      {room !== "phone" && (
        <td>
          <DoseBar
            width={room === "tablet" ? 104 : undefined}
            planned={cell.planned}
            done={cell.done}
            base={cell.base}
            band={band}
            rough={rough}
            max={max ?? Math.max(cell.planned, cell.done, cell.base ?? 0) * 1.05}
          />
        </td>
      )}
      {columns.heads.map((head) => (
        <Fragment key={head}>{cells[head]}</Fragment>
      ))}
    </tr>
  );
}

function FigureCell({
  cell,
  of,
  measure,
  openFigure,
  weak,
}: {
  cell: Cell;
  of: Basis;
  measure: string;
  openFigure: Props["openFigure"];
  weak: boolean;
}) {
  const value = of === "planned" ? cell.planned : cell.done;
  const rough = of === "planned" ? cell.rough_planned : cell.rough_done;
  if (value === 0) return <td className="figure text-ink-2">0</td>;
  return (
    <td className={`figure ${weak ? "text-ink-2" : ""}`}>
      <button
        type="button"
        data-figure
        className={`trail-link ${rough ? "italic" : ""}`}
        title={
          rough
            ? "Rests on estimated reps or an assumed tempo. Open the sets behind it"
            : "Open the sets behind it"
        }
        onClick={() => openFigure(cell.figure, of)}
      >
        {amount(value, measure)}
        {cell.measured && of === "completed" && (
          <sup title="Partly measured by a sensor" className="font-normal">
            m
          </sup>
        )}
      </button>
    </td>
  );
}

function PairLine({
  pair,
  columns,
  sheet,
  selected,
  openFigure,
  openFinding,
}: Omit<Props, "sheet"> & { pair: PairRow; columns: Columns; sheet: Sheet }) {
  const side = sheet.basis === "completed" ? "done" : "planned";
  const ratios = MAIN_MEASURES.flatMap((measure) => {
    const one = pair.measures[measure]?.[side];
    return one ? [{ measure, ratio: one.ratio, empty: one.a === 0 && one.b === 0 }] : [];
  });
  const deciding = pair.measures[pair.measure];
  const room = useRoom();
  const narrow = room === "phone";
  const beam = (
    <Beam
      ratios={ratios}
      measure={pair.measure}
      band={pair.band}
      hollow={sheet.basis === "planned"}
      width={room === "desk" ? undefined : 112}
    />
  );
  return (
    <tr data-row={pair.subject} className={rowClass(selected === pair.subject)}>
      <Margin at={pair.findings} sheet={sheet} openFinding={openFinding} />
      <th scope="row" className="py-0.5 pr-2 text-left leading-tight font-normal">
        {capital(pair.label_a)} : {pair.label_b}
        <span className="block text-sm text-ink-2">
          {deciding && (
            <>
              <SideFigure
                pair={pair}
                side="a"
                value={deciding[side].a}
                basis={sheet.basis}
                openFigure={openFigure}
              />
              {" : "}
              <SideFigure
                pair={pair}
                side="b"
                value={deciding[side].b}
                basis={sheet.basis}
                openFigure={openFigure}
              />{" "}
              {measureTitle(pair.measure)}
            </>
          )}
        </span>
        {narrow && beam}
      </th>
      {!narrow && <td>{beam}</td>}
      {columns.heads.map((head) => (
        <PairCell key={head} head={head} pair={pair} side={side} />
      ))}
    </tr>
  );
}

interface PairCellProps {
  head: string;
  pair: PairRow;
  side: "planned" | "done";
}

/** A pair's figure in one column: the ratio of a measure with its other side below, or its norm. */
function PairCell({ head, pair, side }: PairCellProps) {
  if (head === "baseline") {
    const base = pair.measures[pair.measure]?.base;
    return <td className="figure text-ink-2">{base ? ratioText(base) : "–"}</td>;
  }
  if (head === "band")
    return (
      <td className="figure text-ink-2">
        {pair.band ? `${number(pair.band.low)}–${number(pair.band.high)}` : "–"}
      </td>
    );
  const ratios = pair.measures[head];
  const other = ratios?.[side === "done" ? "planned" : "done"];
  return (
    <td className={`figure leading-tight ${head === pair.measure ? "font-semibold" : ""}`}>
      {ratios ? ratioText(ratios[side]) : ""}
      {ratios && other && (
        <span className="block text-sm font-normal text-ink-2">{ratioText(other)}</span>
      )}
    </td>
  );
}

/** A ratio; with nothing on side b it has no number, and says which side there is. */
function ratioText(one: Schemas["Side"]): string {
  if (one.ratio !== null) return ratio(one.ratio);
  return one.a > 0 ? "all : 0" : "–";
}

function SideFigure({
  pair,
  side,
  value,
  basis,
  openFigure,
}: {
  pair: PairRow;
  side: "a" | "b";
  value: number;
  basis: Basis;
  openFigure: Props["openFigure"];
}) {
  const text = amount(value, pair.measure);
  if (value === 0 || !pair.opens) return <>{text}</>;
  return (
    <button
      type="button"
      data-figure
      className="trail-link"
      aria-label={`${side === "a" ? pair.label_a : pair.label_b} ${text}`}
      onClick={() => openFigure(`balance/${pair.subject}/${side}/${pair.measure}`, basis)}
    >
      {text}
    </button>
  );
}
