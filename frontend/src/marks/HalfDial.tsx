import { type ReactNode, useRef } from "react";

export const WIDTH = 420;
const HEIGHT = 216;
const CX = WIDTH / 2;
const CY = 194;
export const RADIUS = 138;

/** Where a setting stands on the half circle, from the least on the left to the most on the right. */
export function around(least: number, most: number) {
  const span = Math.max(1, most - least);
  const angle = (setting: number) =>
    180 - ((Math.max(least, Math.min(most, setting)) - least) / span) * 180;
  const at = (setting: number, radius: number): [number, number] => {
    const radians = (angle(setting) * Math.PI) / 180;
    return [CX + radius * Math.cos(radians), CY - radius * Math.sin(radians)];
  };
  return { at, angle };
}

export type Around = ReturnType<typeof around>;

interface Props {
  label: string;
  value: number;
  /** The value in words. */
  says: string;
  least: number;
  most: number;
  /** Keys that go to settings of their own. */
  keys?: Record<string, number>;
  /** How much of the needle gives way to what stands inside the arc. */
  room?: number;
  turn: (setting: number) => void;
  children: ReactNode;
}

/** A half circle with a needle, to be turned by hand, by wheel of keys, or by a drag. */
export function HalfDial({
  label,
  value,
  says,
  least,
  most,
  keys,
  room = 46,
  turn,
  children,
}: Props) {
  const face = useRef<SVGSVGElement>(null);
  const span = Math.max(1, most - least);
  const { at } = around(least, most);
  const drag = (event: React.PointerEvent) => {
    const box = face.current?.getBoundingClientRect();
    if (!box) return;
    const x = ((event.clientX - box.left) / box.width) * WIDTH - CX;
    const y = CY - ((event.clientY - box.top) / box.height) * HEIGHT;
    const degrees = Math.max(0, Math.min(180, (Math.atan2(Math.max(y, 0), x) * 180) / Math.PI));
    const setting = Math.round(least + ((180 - degrees) / 180) * span);
    if (setting !== value) turn(setting);
  };
  const goes: Record<string, number> = {
    ArrowLeft: value - 1,
    ArrowDown: value - 1,
    ArrowRight: value + 1,
    ArrowUp: value + 1,
    ...keys,
  };
  const [px, py] = at(value, RADIUS - room);
  const [qx, qy] = at(value, RADIUS - 14);
  const [rx, ry] = at(value, RADIUS - 4);
  return (
    <svg
      ref={face}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full touch-none select-none"
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuenow={value}
      aria-valuetext={says}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={(event) => event.buttons === 1 && drag(event)}
      onKeyDown={(event) => {
        const next = goes[event.key];
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
      {children}
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
