import { fill } from "./hatch";

interface Props {
  columns: { week: string; planned: number; done: number }[];
  /** What the columns are, for those who do not see them. */
  label: string;
  column?: number;
  height?: number;
}

/** Weeks as columns, the newest on the right: planned hollow, done solid. */
export function WeekColumns({ columns, label, column = 12, height = 30 }: Props) {
  const max = Math.max(1, ...columns.map((one) => Math.max(one.planned, one.done)));
  const width = columns.length * (column + 3);
  const y = (value: number) => height - 2 - (value / max) * (height - 4);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="img"
      aria-label={label}
      className="block"
    >
      <path d={`M0 ${height - 1.5}H${width}`} stroke="var(--rule)" />
      {columns.map((one, at) => {
        const x = at * (column + 3) + 1.5;
        return (
          <g key={one.week}>
            {one.planned > 0 && (
              <rect
                x={x}
                y={y(one.planned)}
                width={column}
                height={height - 2 - y(one.planned)}
                fill="none"
                stroke="var(--ink)"
              />
            )}
            {one.done > 0 && (
              <rect
                x={x + 2.5}
                y={y(one.done)}
                width={column - 5}
                height={height - 2 - y(one.done)}
                fill={fill(false)}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
