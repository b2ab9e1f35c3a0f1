import { useEffect, useState } from "react";
import { type Schemas, messageOf } from "@/api/client";
import { rules as calls } from "@/api/rules";
import { Heads } from "@/frame/Heads";
import { count, weekName } from "@/words";

type Effect = Schemas["AthleteEffect"];

const ASK_AFTER_MS = 250;

interface Counted {
  /** The choices that were counted. */
  asked: string;
  athletes: Effect[];
  of: number;
  done: boolean;
  error: string | null;
}

const NONE: Counted = { asked: "", athletes: [], of: 0, done: false, error: null };

/** What the house's choices in hand do to everybody's last week, as it is counted. */
function usePreviewAll(chosen: Record<string, unknown>, changed: boolean): Counted {
  const [counted, setCounted] = useState<Counted>(NONE);
  const asked = JSON.stringify(chosen);
  useEffect(() => {
    if (!changed) return undefined;
    const control = new AbortController();
    const ask = async () => {
      let athletes: Effect[] = [];
      let next: number | null = 0;
      while (next !== null) {
        const found: Schemas["PreviewAllOut"] = await calls.previewAll(
          { chosen: JSON.parse(asked), skip: next },
          control.signal,
        );
        if (control.signal.aborted) return;
        athletes = [...athletes, ...found.athletes];
        next = found.next ?? null;
        setCounted({ asked, athletes, of: found.of, done: next === null, error: null });
      }
    };
    const timer = setTimeout(() => {
      ask().catch((problem: unknown) => {
        if (!control.signal.aborted)
          setCounted({
            ...NONE,
            asked,
            done: true,
            error: messageOf(problem),
          });
      });
    }, ASK_AFTER_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [asked, changed]);
  // Figures of choices that are no longer in hand say nothing of those that are.
  return counted.asked === asked ? counted : NONE;
}

interface Props {
  chosen: Record<string, unknown>;
  changed: boolean;
  /** Look at one athlete's week more closely. */
  look: (athlete: number, week: string) => void;
}

/** Whose findings come and go under the choices in hand, before they are kept. */
export function PreviewAll({ chosen, changed, look }: Props) {
  const { athletes, of, done, error } = usePreviewAll(chosen, changed);
  if (!changed) return null;
  const touched = athletes.filter((one) => one.cleared + one.appeared + one.changed > 0);
  const sum = (name: "cleared" | "appeared" | "changed") =>
    touched.reduce((total, one) => total + one[name], 0);
  return (
    <section
      aria-label="What it changes for everybody"
      aria-live="polite"
      className="max-h-[45%] overflow-auto border-b border-rule px-5 pt-4 pb-3 text-sm"
    >
      <h2 className="border-b border-rule pb-1 text-base font-semibold">For everybody</h2>
      {error && (
        <p role="alert" className="mt-2 text-high">
          {error}
        </p>
      )}
      {!error && (
        <p className="mt-2">
          {done ? "" : of > 0 ? `${athletes.length} of ${of} counted. ` : "Counting…"}
          {touched.length === 0
            ? done && "Nothing comes or goes in anybody’s last week."
            : `${count(sum("cleared"), "finding")} would clear, ${sum("appeared")} appear, ${sum("changed")} change level, for ${count(touched.length, "athlete")}.`}
        </p>
      )}
      {touched.length > 0 && (
        <table className="mt-1 w-full">
          <thead>
            <tr className="text-ink-2 italic">
              <Heads
                heads={[
                  "Findings of",
                  ...["before", "after", "clear", "appear"].map((says) => ({ says, figure: true })),
                ]}
              />
            </tr>
          </thead>
          <tbody>
            {touched.map((one) => (
              <tr key={one.id} className="border-t border-hair">
                <th scope="row" className="text-left font-normal">
                  <button
                    type="button"
                    className="trail-link min-h-6 text-left"
                    title={`Look at ${weekName(one.week).toLowerCase()} of ${one.name}`}
                    onClick={() => look(one.id, one.week)}
                  >
                    {one.name}
                  </button>
                </th>
                <td className="figure">{one.before}</td>
                <td className="figure font-semibold">{one.after}</td>
                <td className="figure">{one.cleared || ""}</td>
                <td className="figure">{one.appeared || ""}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
