import { useChange } from "@/api/changes";
import { sheets, useImports } from "@/api/sheets";
import { date } from "@/words";

/** Imported files, each to be taken out again. */
export function Imports() {
  const found = useImports();
  const undo = useChange((id: number) => sheets.undo(id));
  const all = found.data?.imports ?? [];
  if (all.length === 0) return null;
  return (
    <div className="mt-4 text-sm">
      <h3 className="text-ink-2 italic">Imported files</h3>
      <ul>
        {all.map((one) => (
          <li
            key={one.id}
            className="flex max-w-xl items-baseline gap-4 border-b border-hair py-0.5"
          >
            <span className="min-w-0 flex-1 truncate">{one.name}</span>
            <span className="text-ink-2">
              {date(one.day)}, {one.sessions} sessions
            </span>
            <button
              type="button"
              className="trail-link min-h-6"
              disabled={undo.isPending}
              onClick={() => undo.mutate(one.id)}
            >
              Undo
            </button>
          </li>
        ))}
      </ul>
      {undo.error && (
        <p role="alert" className="text-high">
          {undo.error.message}
        </p>
      )}
    </div>
  );
}
