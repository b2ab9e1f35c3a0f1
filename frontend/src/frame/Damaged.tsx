/** Rows that cannot be read, where they would stand: the rest is shown without them. */
export function Damaged({ lines }: { lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <details role="alert" className="border-l-4 border-high bg-sheet px-6 py-2 text-sm max-md:px-4">
      <summary>
        {lines.length === 1 ? "One value" : `${lines.length} values`} in the data file cannot be
        read. Figures here leave {lines.length === 1 ? "it" : "them"} out.
      </summary>
      <ul className="mt-1 font-mono text-xs">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </details>
  );
}
