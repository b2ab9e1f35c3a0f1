import { useRef } from "react";
import type { Level, Schemas } from "@/api/client";

interface Props {
  value: number;
  start: number;
  least: number;
  most: number;
  notches: Schemas["NotchOut"][];
  turn: (total: number) => void;
}

const WIDTH = 420;
const HEIGHT = 216;
const CX = WIDTH / 2;
const CY = 194;
const RADIUS = 138;

const BARS: Record<Level, number> = { note: 1, caution: 2, high: 3 };
const COLOUR: Record<Level, string> = {
  note: "var(--note)",
  caution: "var(--caution)",
  high: "var(--high)",
};

/** The dial: one detent for each set, notches where findings clear (outside) or appear (inside). */
export function DialFace({ value, start, least, most, notches, turn }: Props) {
  const face = useRef<SVGSVGElement>(null);
  const span = Math.max(1, most - least);
  const { at, angle } = around(least, most);
  const drag = (event: React.PointerEvent) => {
    const box = face.current?.getBoundingClientRect();
    if (!box) return;
    const x = ((event.clientX - box.left) / box.width) * WIDTH - CX;
    const y = CY - ((event.clientY - box.top) / box.height) * HEIGHT;
    const degrees = Math.max(0, Math.min(180, (Math.atan2(Math.max(y, 0), x) * 180) / Math.PI));
    const total = Math.round(least + ((180 - degrees) / 180) * span);
    if (total !== value) turn(total);
  };
  const keys: Record<string, number> = {
    ArrowLeft: value - 1,
    ArrowDown: value - 1,
    ArrowRight: value + 1,
    ArrowUp: value + 1,
    PageDown: value - 5,
    PageUp: value + 5,
    Home: start,
  };
  const [px, py] = at(value, RADIUS - 46);
  const [qx, qy] = at(value, RADIUS - 17);
  const [rx, ry] = at(value, RADIUS - 4);
  const [sx, sy] = at(start, RADIUS + 3);
  const [bx, by] = at(start, RADIUS - 12);
  return (
    <svg
      ref={face}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full touch-none select-none"
      role="slider"
      tabIndex={0}
      aria-label="Sets of the week"
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuenow={value}
      aria-valuetext={`${value} sets, ${Math.round((value / Math.max(1, start)) * 100)} per cent`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={(event) => event.buttons === 1 && drag(event)}
      onKeyDown={(event) => {
        const next = keys[event.key];
        if (next === undefined) return;
        event.preventDefault();
        turn(Math.max(least, Math.min(most, next)));
      }}
    >
      <path
        d={`M${CX - RADIUS} ${CY}A${RADIUS} ${RADIUS} 0 0 1 ${CX + RADIUS} ${CY}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.25"
      />
      <Detents least={least} span={span} at={at} />
      <path d={`M${sx} ${sy}L${bx} ${by}`} stroke="var(--ink)" strokeWidth="2.5" />
      <Notches notches={notches} at={at} angle={angle} />
      {/* The needle leaves room for the figure that it points at, and goes on behind it. */}
      <path
        d={`M${CX} ${CY}L${px} ${py}M${qx} ${qy}L${rx} ${ry}`}
        stroke="var(--ink)"
        strokeWidth="4"
        strokeLinecap="round"
      />
      <circle cx={CX} cy={CY} r="9" fill="var(--ink)" />
      <path d={`M8 ${CY + 14}H${WIDTH - 8}`} stroke="var(--rule)" />
    </svg>
  );
}

type Around = ReturnType<typeof around>;

/** Where a number of sets stands on the half circle. */
function around(least: number, most: number) {
  const span = Math.max(1, most - least);
  const angle = (total: number) =>
    180 - ((Math.max(least, Math.min(most, total)) - least) / span) * 180;
  const at = (total: number, radius: number): [number, number] => {
    const radians = (angle(total) * Math.PI) / 180;
    return [CX + radius * Math.cos(radians), CY - radius * Math.sin(radians)];
  };
  return { at, angle };
}

/** Notches at one setting and of one effect stand as one mark, with the worst level. */
function groups(notches: Schemas["NotchOut"][]) {
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
        text: `At ${one.total} sets\n${line}`,
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

interface DetentsProps {
  least: number;
  span: number;
  at: Around["at"];
}

/** A line for each set, the tens written. */
function Detents({ least, span, at }: DetentsProps) {
  return (
    <>
      {Array.from({ length: span + 1 }, (_, step) => least + step).map((total) => {
        const long = total % 10 === 0;
        const [x1, y1] = at(total, RADIUS);
        const [x2, y2] = at(total, RADIUS - (long ? 10 : total % 5 === 0 ? 7 : 4));
        const [tx, ty] = at(total, RADIUS - 32);
        return (
          <g key={total}>
            <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke={long ? "var(--ink)" : "var(--rule)"} />
            {long && (
              <text x={tx} y={ty + 4} textAnchor="middle" fontSize="12" fill="var(--ink-2)">
                {total}
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
  at: Around["at"];
  angle: Around["angle"];
}

/** Where findings clear (outside) or appear (inside). */
function Notches({ notches, at, angle }: NotchesProps) {
  return (
    <>
      {groups(notches).map((one) => {
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
