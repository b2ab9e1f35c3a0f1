interface Props {
  label: string;
  /** What it is called where the label alone does not tell. */
  name?: string;
  value: boolean;
  put: (value: boolean) => void;
}

/** Yes or no. */
export function Tick({ label, name, value, put }: Props) {
  return (
    <label className="flex min-h-6 items-center gap-1.5">
      <input
        type="checkbox"
        aria-label={name}
        checked={value}
        onChange={(event) => put(event.target.checked)}
        className="size-4 accent-ink"
      />
      {label}
    </label>
  );
}
