import type { Schemas } from "@/api/client";
import { LevelMark } from "@/marks/LevelMark";
import { weekName } from "@/words";

interface Props {
  title: { athlete: string; week: string } | null;
  answer: Schemas["PreviewOut"] | null;
  changed: boolean;
  error: string | null;
}

/** What the rules in hand would do to the findings of the open week. */
export function Preview({ title, answer, changed, error }: Props) {
  return (
    <section
      aria-label="What it changes"
      aria-live="polite"
      className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-4"
    >
      <h2 className="border-b border-rule pb-1 font-semibold">
        {title
          ? `In ${weekName(title.week).toLowerCase()} of ${title.athlete}`
          : "No week to try it on"}
      </h2>
      {error && (
        <p role="alert" className="mt-3 border-l-4 border-high pl-3 text-sm">
          {error}
        </p>
      )}
      {!changed && (
        <p className="mt-3 text-sm text-ink-2">
          {title
            ? "Change a rule, and see here which findings of this week come and go before you save it."
            : "Import a book first; then a change shows here what it does to a week."}
        </p>
      )}
      {answer && !error && (
        <>
          <p className="mt-2 text-sm">
            {answer.before} finding{answer.before === 1 ? "" : "s"} before,{" "}
            <span className="font-semibold">{answer.after} after</span>.
            {answer.cleared.length + answer.appeared.length + answer.changed.length === 0 &&
              " Nothing comes or goes."}
          </p>
          <List title="Would clear" findings={answer.cleared} struck />
          <List title="Would appear" findings={answer.appeared} />
          <List title="Would change level" findings={answer.changed} />
        </>
      )}
    </section>
  );
}

function List({
  title,
  findings,
  struck = false,
}: {
  title: string;
  findings: Schemas["FindingOut"][];
  struck?: boolean;
}) {
  if (findings.length === 0) return null;
  return (
    <>
      <h3 className="mt-3 text-sm text-ink-2 italic">{title}</h3>
      <ul className="text-sm">
        {findings.map((one) => (
          <li
            key={`${one.code}/${one.subject}/${one.measure}`}
            className="flex gap-2 border-b border-hair py-1"
          >
            <span className="pt-0.5">
              <LevelMark level={one.level} struck={struck} />
            </span>
            {one.sentence}
          </li>
        ))}
      </ul>
    </>
  );
}
