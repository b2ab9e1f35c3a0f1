import type { Schemas } from "@/api/client";
import { Stepper } from "@/shared/Stepper";
import { day } from "@/words";
import { type Turn, turnAt } from "./turns";
import type { SquadDesk } from "./useSquadDesk";

interface Props {
  session: Schemas["SharedOut"];
  /** How many there are in all. */
  of: number;
  desk: SquadDesk;
}

const UNITS = { sets: "sets", pairs: "pairs", rounds: "rounds" };

/** A session that several have: its lines turn for all of them at once. */
export function SharedSession({ session, of, desk }: Props) {
  const added = desk.turns.filter(
    (one) => one.athlete === null && one.session === session.session && one.line === null,
  );
  return (
    <section className="mb-5" aria-label={session.title}>
      <header className="border-b border-rule pb-1">
        <h2 className="text-sm text-ink-2">
          <span className="font-semibold text-ink">{day(session.day)}</span>{" "}
          <span className="italic">{session.title}</span>
        </h2>
        <p className="text-sm text-ink-2">
          {session.people.length} of {of}: {session.people.map((one) => one.name).join(", ")}
        </p>
      </header>
      <table className="w-full">
        <tbody>
          {session.lines.map((line) => (
            <Row key={line.line} line={line} session={session.session} desk={desk} />
          ))}
          {added.map((one) => (
            <tr key={one.movement} className="border-b border-hair">
              <th scope="row" className="py-0.5 text-left font-semibold">
                {one.movement} <span className="text-sm font-normal text-ink-2">new</span>
              </th>
              <td className="text-sm text-ink-2 max-md:hidden">as each did it last</td>
              <td className="figure">
                {one.count} sets{" "}
                <button type="button" className="trail-link text-sm" onClick={() => desk.drop(one)}>
                  leave out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface RowProps {
  line: Schemas["SquadLineOut"];
  session: number;
  desk: SquadDesk;
}

function Row({ line, session, desk }: RowProps) {
  const where: Turn = {
    athlete: null,
    session,
    line: line.line,
    movement: null,
    count: line.count,
    name: line.name,
    what: "",
    reason: "",
  };
  const turned = turnAt(desk.turns, where);
  const now = turned?.count ?? line.count;
  const words = (
    <>
      {line.words}
      {line.differs && <span className="italic">, others differ</span>}
    </>
  );
  return (
    <tr
      className={`border-b border-hair ${line.fixed ? "text-ink-2" : ""} ${turned ? "bg-band/50" : ""}`}
    >
      <th
        scope="row"
        className={`py-0.5 text-left ${turned ? "font-semibold" : "font-normal"} ${now === 0 ? "line-through" : ""}`}
      >
        {line.name}
        <span className="block text-sm font-normal text-ink-2 md:hidden">{words}</span>
      </th>
      <td className="text-sm text-ink-2 max-md:hidden">{words}</td>
      <td className="figure w-52">
        {turned && <span className="mr-2 text-sm text-ink-2">{line.count} →</span>}
        <Stepper
          label={`${line.name}, ${UNITS[line.kind]} for all`}
          value={now}
          step={1}
          whole
          most={line.most}
          disabled={line.fixed}
          set={(count) =>
            count === line.count
              ? desk.drop(where)
              : desk.put({ ...where, count, what: "", reason: "" })
          }
        />
        <span className="inline-block w-12 text-left text-sm text-ink-2">{UNITS[line.kind]}</span>
      </td>
    </tr>
  );
}
