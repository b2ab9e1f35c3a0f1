import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { Heads } from "@/frame/Heads";
import { weekPath } from "@/frame/places";
import { LevelMark } from "@/marks/LevelMark";
import { WeekColumns } from "@/marks/WeekColumns";
import { count, number, share } from "@/words";

type Person = Schemas["PersonOut"];

interface Props {
  data: Schemas["SquadOut"];
  mark: (athlete: number | null) => void;
}

/** Everybody in the order of the roster: planned and done, and what there is to know of each. */
export function PeopleTable({ data, mark }: Props) {
  return (
    <table className="name-rows w-full table-fixed">
      <colgroup className="max-md:hidden">
        <col className="w-56" />
        <col className="w-32" />
        <col />
        <col className="w-32 max-lg:hidden" />
        <col className="w-20" />
        <col className="w-28" />
        <col className="w-20 max-lg:hidden" />
      </colgroup>
      <thead className="max-md:hidden">
        <tr className="border-b border-rule text-sm text-ink-2 italic">
          <Heads
            heads={[
              { says: "athlete", className: "py-1" },
              "open",
              "to read first",
              { says: "sets, eight weeks", className: "max-lg:hidden" },
              { says: "planned", figure: true, className: "px-2" },
              { says: "done", figure: true, className: "px-2" },
              { says: "sessions", figure: true, className: "max-lg:hidden" },
            ]}
          />
        </tr>
      </thead>
      <tbody>
        {data.people.map((one) => (
          <Row key={one.row.id} one={one} data={data} mark={mark} />
        ))}
        {data.waiting.map((one) => (
          <tr key={one.id} className="border-b border-hair text-ink-2">
            <th scope="row" className="py-1 text-left font-normal">
              {one.name}
            </th>
            <td colSpan={6} className="text-sm">
              still to be counted
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What there is to know of somebody before their figures. */
function flagsOf(one: Person, planned: boolean): string[] {
  return [
    one.row.hurt && "hurt",
    one.is_new && "new",
    one.is_back && "back after a break",
    one.own_rules && "own rules",
    !planned && one.row.unlogged > 0 && `${count(one.row.unlogged, "session")} not logged`,
  ].filter((flag) => flag !== false);
}

interface RowProps {
  one: Person;
  data: Props["data"];
  mark: Props["mark"];
}

function Row({ one, data, mark }: RowProps) {
  const { row } = one;
  const week = row.columns.at(-1);
  const planned = data.basis === "planned";
  const flags = flagsOf(one, planned);
  return (
    <tr
      className="border-b border-hair align-baseline hover:bg-band/50"
      onMouseEnter={() => mark(row.id)}
      onMouseLeave={() => mark(null)}
    >
      <th scope="row" className="py-1 pr-3 text-left font-normal">
        <Link
          to={weekPath(row.id, data.week, planned ? "dial" : "sheet")}
          className="font-semibold hover:underline"
          onFocus={() => mark(row.id)}
          onBlur={() => mark(null)}
        >
          {row.name}
        </Link>
        {flags.length > 0 && <span className="block text-xs text-caution">{flags.join(", ")}</span>}
      </th>
      <td className="pr-3 whitespace-nowrap">
        {(["high", "caution"] as const).map(
          (level) =>
            row.counts[level] > 0 && (
              <span key={level} className="mr-2 inline-flex items-center gap-1" title={level}>
                <LevelMark level={level} /> {row.counts[level]}
              </span>
            ),
        )}
        {row.counts.high + row.counts.caution === 0 && (
          <span className="text-sm text-ink-2">none</span>
        )}
      </td>
      <td className="truncate pr-4 text-sm max-md:max-w-full" title={row.first ?? ""}>
        {row.first ?? <span className="text-ink-2">Nothing open.</span>}
      </td>
      <td className="pr-2 max-lg:hidden">
        <WeekColumns
          columns={row.columns}
          column={9}
          height={20}
          label={`Sets planned and done, eight weeks of ${row.name}`}
        />
      </td>
      <td className="figure px-2">{number(week?.planned ?? 0, 1)}</td>
      <td className="figure px-2">
        {planned ? (
          "–"
        ) : (
          <>
            {number(week?.done ?? 0, 1)}{" "}
            <span className="inline-block w-12 text-sm text-ink-2">{share(row.share_done)}</span>
          </>
        )}
      </td>
      <td className="figure max-lg:hidden">
        {planned || row.sessions_planned === 0
          ? row.sessions_planned || "–"
          : `${row.sessions_done} of ${row.sessions_planned}`}
      </td>
    </tr>
  );
}
