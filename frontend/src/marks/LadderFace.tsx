import type { Schemas } from "@/api/client";
import { count } from "@/words";
import { HalfDial, RADIUS, around } from "./HalfDial";
import { BARS, COLOUR } from "./levels";

type Rung = Schemas["RungOut"];

interface Props {
  /** From as planned to all that can be cleared. */
  rungs: Rung[];
  chosen: number;
  choose: (rung: number) => void;
}

/** The dial of a proposal: a stop for each gain, with what it costs outside and what is left inside. */
export function LadderFace({ rungs, chosen, choose }: Props) {
  const most = rungs.length - 1;
  const { at } = around(0, most);
  const rung = rungs[chosen];
  return (
    <HalfDial
      label="How much may change"
      value={chosen}
      says={rung ? leftWords(rung, chosen) : ""}
      least={0}
      most={most}
      keys={{ Home: 0, End: most }}
      room={62}
      turn={choose}
    >
      {rungs.map((stop, index) => {
        const [x1, y1] = at(index, RADIUS);
        const [x2, y2] = at(index, RADIUS - 9);
        const [ox, oy] = at(index, RADIUS + 16);
        const end = index === 0 || index === most;
        // The needle lies flat at both ends: what is left there stands outside, above the words.
        const side = index === 0 ? -22 : 24;
        const [ix, iy] = end ? [ox + side, oy - 22] : at(index, RADIUS - 36);
        return (
          <g key={stop.cost}>
            <title>{leftWords(stop, index)}</title>
            <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="var(--ink)" strokeWidth="2" />
            <text
              x={ox}
              y={oy + 4}
              textAnchor={index === 0 ? "end" : index === most ? "start" : "middle"}
              fontSize="13"
              fontWeight={index === chosen ? 600 : 400}
              fill="var(--ink)"
            >
              {index === 0 ? "as it is" : stop.cost}
            </text>
            {(["high", "caution"] as const)
              .filter((level) => stop[level] > 0)
              .map((level, row, shown) => (
                <Left
                  key={level}
                  level={level}
                  many={stop[level]}
                  x={ix}
                  y={iy + (row - (shown.length - 1) / 2) * 15}
                />
              ))}
            {stop.high + stop.caution === 0 && (
              <text x={ix} y={iy + 4} textAnchor="middle" fontSize="12" fill="var(--ink)">
                all clear
              </text>
            )}
          </g>
        );
      })}
    </HalfDial>
  );
}

interface LeftProps {
  level: "high" | "caution";
  many: number;
  x: number;
  y: number;
}

/** So many findings of a level are left: its plates, and the number. */
function Left({ level, many, x, y }: LeftProps) {
  return (
    <g transform={`translate(${x} ${y})`} fill={COLOUR[level]}>
      {Array.from({ length: BARS[level] }, (_, bar) => (
        <rect key={bar} x={-14 + bar * 4.5} y="-5" width="3" height="10" />
      ))}
      <text x="3" y="4" fontSize="12" fill="var(--ink)">
        {many}
      </text>
    </g>
  );
}

/** A stop in words: what it costs, and what is left. */
function leftWords(rung: Rung, index: number): string {
  const left = [
    rung.high > 0 ? `${rung.high} high` : "",
    rung.caution > 0 ? count(rung.caution, "caution") : "",
  ].filter(Boolean);
  const what = index === 0 ? "As it is" : `Cost ${rung.cost}`;
  return `${what}: ${left.length > 0 ? `${left.join(" and ")} left` : "all clear"}`;
}
