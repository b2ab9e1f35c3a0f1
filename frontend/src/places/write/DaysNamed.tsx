import type { Schemas } from "@/api/client";
import { useLook } from "@/api/changes";
import { count, day } from "@/words";

interface Props {
  days: Schemas["DayInText"][];
  /** All that is typed is stored. */
  ready: boolean;
  make: () => Promise<void>;
}

/** A text that names other days than its own: what becomes of each, and the key that does it. */
export function DaysNamed({ days, ready, make }: Props) {
  const making = useLook(make);
  if (days.length === 0) return null;
  const several = days.length > 1;
  return (
    <div
      aria-label="Days in the text"
      role="group"
      className="border-t border-rule bg-band/40 px-6 py-2 text-sm"
    >
      <p>
        {several ? `This text has ${days.length} days.` : "This text is for another day."}
        <button
          type="button"
          className="key-button ml-3"
          disabled={!ready || making.isPending}
          onClick={() => making.mutate()}
        >
          {several ? "Make each day a session" : "Move it to that day"}
        </button>
      </p>
      {making.error && (
        <p role="alert" className="text-high">
          {making.error.message}
        </p>
      )}
      <ul className="mt-1 flex max-h-20 flex-wrap gap-x-6 overflow-auto">
        {days.map((one) => (
          <li key={one.line}>
            <span className="font-semibold">{day(one.date)}</span> {one.title}{" "}
            <span className="text-ink-2">{count(one.sets, "set")}</span>
            {one.instead_of.length > 0 && (
              <span className="text-caution">, in place of {one.instead_of.join(" and ")}</span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
