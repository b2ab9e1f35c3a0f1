interface Difference {
  what: string;
  theirs: string;
  mine: string;
}

interface Props {
  /** What was changed elsewhere: "The kit". */
  what: string;
  differences: Difference[];
  /** See what was kept elsewhere, and let go of what is in hand. */
  takeTheirs: () => void;
  /** Go on with what is in hand. */
  keepMine: () => void;
}

/** Another window has kept something else meanwhile: both beside each other, to choose. */
export function OtherVersion({ what, differences, takeTheirs, keepMine }: Props) {
  return (
    <div role="alert" className="mb-3 border-l-4 border-caution pl-3 text-sm">
      <p>{what} changed in another window. Nothing of yours is lost.</p>
      {differences.length > 0 && (
        <table className="mt-1">
          <thead>
            <tr className="text-left text-ink-2 italic">
              <td />
              <th scope="col" className="pr-6 font-normal">
                saved there
              </th>
              <th scope="col" className="font-normal">
                yours
              </th>
            </tr>
          </thead>
          <tbody>
            {differences.slice(0, 12).map((one) => (
              <tr key={one.what}>
                <th scope="row" className="pr-6 text-left font-normal text-ink-2">
                  {one.what}
                </th>
                <td className="pr-6">{one.theirs}</td>
                <td>{one.mine}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-1 flex gap-5">
        <button type="button" className="trail-link min-h-6" onClick={takeTheirs}>
          Use the other version
        </button>
        <button type="button" className="trail-link min-h-6" onClick={keepMine}>
          Keep mine
        </button>
      </p>
    </div>
  );
}

/** A value as a person reads it: numbers, words, what is in a list or a table. */
export function readable(value: unknown): string {
  if (value === undefined || value === null || value === "") return "–";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value)) return value.length ? value.map(readable).join(", ") : "none";
  if (typeof value === "object")
    return (
      Object.entries(value)
        .map(([key, one]) => `${key.replaceAll("_", " ")} ${readable(one)}`)
        .join(", ") || "none"
    );
  return typeof value === "number" || typeof value === "string"
    ? String(value).replaceAll("_", " ")
    : "–";
}

/** The fields of two values that are not the same in both, each with what it is called. */
export function differencesOf(
  theirs: Record<string, unknown>,
  mine: Record<string, unknown>,
  called: (name: string) => string,
): Difference[] {
  return [...new Set([...Object.keys(theirs), ...Object.keys(mine)])]
    .filter((name) => JSON.stringify(theirs[name]) !== JSON.stringify(mine[name]))
    .map((name) => ({
      what: called(name),
      theirs: readable(theirs[name]),
      mine: readable(mine[name]),
    }));
}
