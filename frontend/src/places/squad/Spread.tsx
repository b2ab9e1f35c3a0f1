import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { weekPath } from "@/frame/places";
import { MAIN_MEASURES, measureTitle, percent, weekName } from "@/words";

type Person = Schemas["PersonOut"];

interface Props {
  data: Schemas["SquadOut"];
  /** Whose weeks are joined by a line. */
  marked: number | null;
  mark: (athlete: number | null) => void;
}

/** How the squad's weeks spread: a mark for each athlete, against their own baseline. */
export function Spread({ data, marked, mark }: Props) {
  if (data.people.length === 0) return null;
  return (
    <section aria-labelledby="spread" className="border-b border-rule py-2">
      <h2 id="spread" className="text-sm text-ink-2 italic">
        Week by week, each against their own baseline; the strip is what a week may gain
      </h2>
      <div className="grid grid-cols-4 gap-x-6 gap-y-3 pt-1 max-xl:grid-cols-2 max-md:grid-cols-1">
        {MAIN_MEASURES.map((measure) => (
          <Measure key={measure} measure={measure} data={data} marked={marked} mark={mark} />
        ))}
      </div>
    </section>
  );
}

const WIDTH = 280;
const TALL = 96;
/** A share that the drawing ends at, either way. */
const MOST = 0.6;

const yOf = (change: number) =>
  TALL / 2 - (Math.max(-MOST, Math.min(MOST, change)) / MOST) * (TALL / 2 - 5);

function Measure({ measure, data, marked, mark }: Props & { measure: string }) {
  const weeks = data.weeks.length;
  const step = WIDTH / weeks;
  const limit = data.limits[measure] ?? null;
  const last = (one: Person) => one.marks[measure]?.at(-1) ?? null;
  const above = data.people
    .filter((one) => last(one)?.above)
    .sort((one, two) => (last(two)?.change ?? 0) - (last(one)?.change ?? 0));
  const compared = data.people.filter((one) => (last(one)?.change ?? null) !== null);
  return (
    <figure className="min-w-0">
      <figcaption className="flex items-baseline justify-between text-sm">
        <span className="font-semibold">{measureTitle(measure)}</span>
        <span className="text-ink-2">{limit === null ? "no limit" : `to ${percent(limit)}`}</span>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${TALL}`}
        className="block w-full"
        role="img"
        aria-label={`${measureTitle(measure)}, ${weekName(data.week)}: ${compared.length - above.length} of ${compared.length} within what a week may gain`}
      >
        {limit !== null && (
          <rect
            x="0"
            width={WIDTH}
            y={yOf(limit)}
            height={yOf(0) - yOf(limit)}
            fill="var(--band)"
          />
        )}
        <path d={`M0 ${yOf(0)}H${WIDTH}`} stroke="var(--rule)" />
        {data.people.map((one) => (
          <Marks
            key={one.row.id}
            marks={one.marks[measure] ?? []}
            step={step}
            planned={data.basis === "planned"}
            joined={one.row.id === marked}
          />
        ))}
      </svg>
      <p className="flex justify-between text-2xs text-ink-2">
        <span>{weekName(data.weeks[0] ?? "")}</span>
        <span>{weekName(data.week)}</span>
      </p>
      <p className="min-h-5 text-sm">
        {above.length === 0 ? (
          <span className="text-ink-2">{limit === null ? "" : "nobody above"}</span>
        ) : (
          above.slice(0, 3).map((one) => (
            <span key={one.row.id} className="mr-2 inline-block whitespace-nowrap">
              <Link
                to={weekPath(one.row.id, data.week, data.basis === "planned" ? "dial" : "sheet")}
                className="trail-link"
                onMouseEnter={() => mark(one.row.id)}
                onMouseLeave={() => mark(null)}
                onFocus={() => mark(one.row.id)}
                onBlur={() => mark(null)}
              >
                {one.row.name}
              </Link>{" "}
              <span className="text-caution">{percent(last(one)?.change ?? 0)}</span>
            </span>
          ))
        )}
        {above.length > 3 && <span className="text-ink-2">and {above.length - 3} more</span>}
      </p>
    </figure>
  );
}

interface MarksProps {
  marks: (Schemas["SpreadMark"] | null)[];
  step: number;
  planned: boolean;
  joined: boolean;
}

/** One athlete's weeks: a short stroke in each, joined where the athlete is looked at. */
function Marks({ marks, step, planned, joined }: MarksProps) {
  const points = marks.flatMap((one, at) =>
    one === null || one.change === null
      ? []
      : [{ at, x: (at + 0.5) * step, y: yOf(one.change), above: one.above }],
  );
  const last = marks.length - 1;
  return (
    <g stroke={joined ? "var(--ink)" : "var(--ink-2)"} strokeWidth={joined ? 2 : 1.25}>
      {joined && (
        <polyline
          points={points.map((one) => `${one.x},${one.y}`).join(" ")}
          fill="none"
          strokeWidth="1"
        />
      )}
      {points.map((one) => (
        <path
          key={one.at}
          d={`M${one.x - (one.at === last ? 9 : 5)} ${one.y}h${one.at === last ? 18 : 10}`}
          opacity={joined || one.at === last ? 1 : 0.55}
          strokeDasharray={planned && one.at === last ? "3 2" : undefined}
          stroke={one.above && one.at === last ? "var(--caution)" : undefined}
          strokeWidth={one.above && one.at === last ? 2.5 : undefined}
        />
      ))}
    </g>
  );
}
