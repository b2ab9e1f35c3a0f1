import type { SeasonWeek } from "@/api/season";
import { LevelMark } from "@/marks/LevelMark";
import { KIND_WORDS, weekName } from "@/words";

const MONTH = new Intl.DateTimeFormat("en-GB", { month: "short" });
const monthOf = (week: SeasonWeek) => MONTH.format(new Date(`${week.monday}T12:00:00`));

/** Months with their weeks: where one begins, and how many weeks it has. */
function months(weeks: SeasonWeek[]): { name: string; weeks: number; first: string }[] {
  const found: { name: string; weeks: number; first: string }[] = [];
  for (const week of weeks) {
    const name = monthOf(week);
    const last = found.at(-1);
    if (last?.name === name) last.weeks += 1;
    else found.push({ name, weeks: 1, first: week.week });
  }
  return found;
}

interface EventRow {
  title: string;
  has: (week: SeasonWeek) => boolean;
  says: (week: SeasonWeek) => string;
  mark: (week: SeasonWeek) => React.ReactNode;
}

const EVENTS: EventRow[] = [
  {
    title: "Block",
    has: (week) => week.in_block,
    says: (week) => week.block ?? "in a block",
    mark: (week) => (
      <span
        className={`relative block h-4 border-b-2 border-ink ${week.block ? "border-l-2 text-left" : ""}`}
      >
        {week.block && (
          <span className="absolute bottom-0 left-1 text-2xs whitespace-nowrap">{week.block}</span>
        )}
      </span>
    ),
  },
  {
    title: "Lighter, off",
    has: (week) => week.lighter || week.gap || week.back || week.kind !== null,
    says: (week) =>
      week.gap
        ? "no training"
        : week.back
          ? "back after a break"
          : week.kind
            ? KIND_WORDS[week.kind]
            : "a lighter week",
    mark: (week) =>
      week.gap ? (
        <span className="mx-auto block h-4 bg-[repeating-linear-gradient(45deg,var(--rule)_0_1px,transparent_1px_4px)]" />
      ) : (
        <span aria-hidden="true" className="text-xs leading-4">
          {week.back ? "↦" : week.kind && week.kind !== "lighter" ? "◆" : "▁"}
        </span>
      ),
  },
  {
    title: "Hurt",
    has: (week) => week.pain.length > 0,
    says: (week) => week.pain.join("; "),
    mark: () => (
      <span className="inline-block origin-center scale-75">
        <LevelMark level="high" />
      </span>
    ),
  },
  {
    title: "Restricted",
    has: (week) => week.restrictions.length > 0,
    says: (week) => week.restrictions.join("; "),
    mark: () => <span className="block h-2 border-b-2 border-dashed border-high" />,
  },
  {
    title: "Decided",
    has: (week) => week.decisions.length > 0,
    says: (week) => week.decisions.join("; "),
    mark: () => <span className="block h-2 border-b-2 border-dotted border-ink-2" />,
  },
  {
    title: "Signed",
    has: (week) => week.signed,
    says: () => "signed",
    mark: () => (
      <svg viewBox="0 0 12 12" className="mx-auto block size-3" aria-hidden="true">
        <path d="M1 9c3-6 4-6 4-2s2 3 6-3" fill="none" stroke="var(--ink)" strokeWidth="1.3" />
      </svg>
    ),
  },
];

/** Months and weeks, and below them what happened: blocks, weeks off, pain, signatures. */
export function TimeLine({ weeks, go }: { weeks: SeasonWeek[]; go: (week: string) => void }) {
  const narrow = weeks.length > 26;
  return (
    <thead className="sticky top-0 z-2 bg-sheet text-ink-2">
      <tr aria-hidden="true">
        <td className="season-name" />
        {months(weeks).map((month) => (
          <td
            key={month.first}
            colSpan={month.weeks}
            className="overflow-hidden border-l border-rule pl-0.5 text-left text-2xs italic"
          >
            {narrow && month.weeks < 2 ? "" : month.name}
          </td>
        ))}
        <td />
      </tr>
      <tr className="border-b border-rule">
        <th scope="col" className="season-name text-left text-sm font-normal italic">
          Week
        </th>
        {weeks.map((week, at) => (
          <th key={week.week} scope="col" className="p-0 text-2xs font-normal">
            <button
              type="button"
              className="w-full overflow-visible hover:bg-band max-lg:min-h-6"
              aria-label={`${weekName(week.week)}: open its sheet`}
              onClick={() => go(week.week)}
            >
              {!narrow || (weeks.length - 1 - at) % 4 === 0 ? Number(week.week.slice(6)) : "·"}
            </button>
          </th>
        ))}
        <th scope="col" className="figure pl-2 text-xs font-normal italic">
          {weekName(weeks.at(-1)?.week ?? "")}
        </th>
      </tr>
      {EVENTS.filter((row) => weeks.some(row.has)).map((row) => (
        <tr key={row.title}>
          <th scope="row" className="season-name text-left text-sm font-normal">
            {row.title}
          </th>
          {weeks.map((week) => (
            <td key={week.week} className="p-0 text-center align-bottom">
              {row.has(week) && (
                <span title={`${weekName(week.week)}: ${row.says(week)}`} className="block">
                  {row.mark(week)}
                  <span className="sr-only">{row.says(week)}</span>
                </span>
              )}
            </td>
          ))}
          <td />
        </tr>
      ))}
    </thead>
  );
}
