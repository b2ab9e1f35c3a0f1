interface PickProps {
  label: string;
  value: string;
  options: Record<string, string>;
  put: (value: string) => void;
}

/** One of a few, by name. */
export function Pick({ label, value, options, put }: PickProps) {
  return (
    <label className="text-ink-2">
      {label}{" "}
      <select
        value={value}
        onChange={(event) => put(event.target.value)}
        className="h-6 border-b border-rule bg-sheet text-ink"
      >
        {Object.entries(options).map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
