import { useCopies } from "@/api/files";
import { day, number } from "@/words";

/** The daily copies of the data file: where they lie, and how one is put back. */
export function DailyCopies() {
  const found = useCopies();
  if (!found.data) return null;
  const { folder, kept, copies } = found.data;
  return (
    <section aria-labelledby="copies" className="mt-8 text-sm">
      <h2 id="copies" className="border-b border-rule pb-1 text-base font-semibold">
        Daily copies
      </h2>
      {copies.length === 0 ? (
        <p className="mt-2 text-ink-2">
          None yet. While the server runs, a copy of the data file is made each day; the last {kept}{" "}
          are kept. The made-up club is not copied.
        </p>
      ) : (
        <>
          <p className="mt-2 text-ink-2">
            In <code className="break-all">{folder}</code>. To go back to one, stop the server and
            run <code>dialback restore</code> with it. The last {kept} are kept; carry one to
            another disk now and then.
          </p>
          <ul>
            {copies.map((one) => (
              <li key={one.day} className="flex items-baseline gap-4 border-b border-hair py-0.5">
                <span className="flex-1">{day(one.day)}</span>
                <span className="text-ink-2">{one.name}</span>
                <span className="figure w-20">{number(one.megabytes, 1)} MB</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
