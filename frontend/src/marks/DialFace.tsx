import type { Level, Schemas } from "@/api/client";
import { type Around, HalfDial, RADIUS, around } from "./HalfDial";
import { BARS, COLOUR } from "./levels";
import { type Scale, labelled, settingWords, tickWords } from "./scale";

interface Props {
  /** What is turned, in words. */
  label: string;
  value: number;
  scale: Scale;
  /** Where it stood before it was turned. */
  start: number;
  notches: Schemas["NotchOut"][];
  turn: (setting: number) => void;
}

/** The dial: a detent for each setting, notches where findings clear (outside) or appear (inside). */
export function DialFace({ label, value, scale, start, notches, turn }: Props) {
  const { least, most } = scale;
  const { at, angle } = around(least, most);
  const [sx, sy] = at(start, RADIUS + 3);
  const [bx, by] = at(start, RADIUS - 12);
  return (
    <HalfDial
      label={label}
      value={value}
      says={settingWords(scale, value)}
      least={least}
      most={most}
      keys={{ PageDown: value - 5, PageUp: value + 5, Home: start }}
      turn={turn}
    >
      <Detents scale={scale} at={at} />
      <path d={`M${sx} ${sy}L${bx} ${by}`} stroke="var(--ink)" strokeWidth="2.5" />
      <Notches notches={notches} scale={scale} at={at} angle={angle} />
    </HalfDial>
  );
}

/** Notches at one setting and of one effect stand as one mark, with the worst level. */
function groups(notches: Schemas["NotchOut"][], scale: Scale) {
  const found = new Map<string, { total: number; effect: string; level: Level; text: string }>();
  for (const one of notches) {
    const key = `${one.total}/${one.effect}`;
    const line = `${one.effect === "clears" ? "Clears" : "Raises"} ${one.title.toLowerCase()}: ${one.label}`;
    const known = found.get(key);
    if (!known)
      found.set(key, {
        total: one.total,
        effect: one.effect,
        level: one.level,
        text: `At ${settingWords(scale, one.total)}\n${line}`,
      });
    else {
      known.text += `\n${line}`;
      if (BARS[one.level] > BARS[known.level]) known.level = one.level;
    }
  }
  return [...found.values()].map((one, _, all) => ({ ...one, row: rowOf(one, all) }));
}

/** Close neighbours of one effect stand in two rows, so that each can be read. */
function rowOf<One extends { total: number; effect: string }>(one: One, all: One[]): number {
  const before = all.filter((other) => other.effect === one.effect && other.total < one.total);
  const near = before.sort((a, b) => b.total - a.total)[0];
  return near && one.total - near.total <= 3 ? 1 - rowOf(near, all) : 0;
}

/** A line for each setting, some of them written. */
function Detents({ scale, at }: { scale: Scale; at: Around["at"] }) {
  const { least, most } = scale;
  const written = labelled(scale);
  return (
    <>
      {Array.from({ length: most - least + 1 }, (_, step) => least + step).map((setting) => {
        const long = written.has(setting);
        const [x1, y1] = at(setting, RADIUS);
        const [x2, y2] = at(setting, RADIUS - (long ? 10 : setting % 5 === 0 ? 7 : 4));
        const [tx, ty] = at(setting, RADIUS - 32);
        return (
          <g key={setting}>
            <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke={long ? "var(--ink)" : "var(--rule)"} />
            {long && (
              <text x={tx} y={ty + 4} textAnchor="middle" fontSize="12" fill="var(--ink-2)">
                {tickWords(scale, setting)}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

interface NotchesProps {
  notches: Schemas["NotchOut"][];
  scale: Scale;
  at: Around["at"];
  angle: Around["angle"];
}

/** Where findings clear (outside) or appear (inside). */
function Notches({ notches, scale, at, angle }: NotchesProps) {
  return (
    <>
      {groups(notches, scale).map((one) => {
        const outside = one.effect === "clears";
        const bars = BARS[one.level];
        const [x, y] = at(
          one.total,
          outside ? RADIUS + 15 + one.row * 17 : RADIUS - 50 - one.row * 18,
        );
        return (
          <g
            key={`${one.total}${one.effect}`}
            transform={`translate(${x} ${y}) rotate(${90 - angle(one.total)})`}
          >
            <title>{one.text}</title>
            <rect x="-11" y="-11" width="22" height="22" fill="transparent" />
            {Array.from({ length: bars }, (_, bar) => (
              <rect
                key={bar}
                x={(bar - (bars - 1) / 2) * 4.5 - 1.5}
                y="-6"
                width="3"
                height="12"
                fill={COLOUR[one.level]}
              />
            ))}
            {outside && <path d="M-9 5L9 -5" stroke="var(--ink)" strokeWidth="1.75" />}
          </g>
        );
      })}
    </>
  );
}
