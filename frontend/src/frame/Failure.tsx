import { Refusal } from "@/api/client";

/** What went wrong, in the server's words, and every place that is concerned. */
export function Failure({ error }: { error: unknown }) {
  const problems = error instanceof Refusal ? error.problems : [];
  return (
    <div role="alert" className="m-6 border-l-4 border-high bg-sheet px-4 py-3">
      <p className="font-semibold text-high">That did not work</p>
      <p>{error instanceof Error ? error.message : String(error)}</p>
      {problems.length > 1 && (
        <ul className="mt-2 text-sm">
          {problems.slice(0, 12).map((one) => (
            <li key={one.place + one.message}>
              <code className="font-mono text-xs">{one.place}</code> {one.message}
            </li>
          ))}
          {problems.length > 12 && <li>and {problems.length - 12} more</li>}
        </ul>
      )}
    </div>
  );
}
