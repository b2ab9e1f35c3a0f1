interface Props {
  /** Where no word beside it says what it is. */
  label?: string;
  value: number;
  lengths: readonly number[];
  put: (weeks: number) => void;
  className: string;
}

/** A block has from three weeks to eight. */
export const LENGTHS = [3, 4, 5, 6, 7, 8] as const;

/** So many weeks. */
export function Weeks({ label, value, lengths, put, className }: Props) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => put(Number(event.target.value))}
      className={className}
    >
      {lengths.map((weeks) => (
        <option key={weeks} value={weeks}>
          {weeks}
        </option>
      ))}
    </select>
  );
}
