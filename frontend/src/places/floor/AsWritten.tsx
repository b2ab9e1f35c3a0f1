interface Props {
  lines: string[];
  ticked: string[];
  tick: (line: string) => void;
}

/** Lines of the plan that are not read: shown as they were written, and ticked by hand. */
export function AsWritten({ lines, ticked, tick }: Props) {
  if (lines.length === 0) return null;
  return (
    <div className="border-l-4 border-caution py-1 pl-3">
      <p className="text-sm text-ink-2">Also in the plan, as written; not counted:</p>
      {lines.map((line, at) => (
        // The same may stand there twice.
        <label key={at} className="flex min-h-11 items-center gap-2.5">
          <input
            type="checkbox"
            className="size-5 accent-ink"
            checked={ticked.includes(line)}
            onChange={() => tick(line)}
          />
          {line}
        </label>
      ))}
    </div>
  );
}
