import type { Schemas } from "@/api/client";
import { date, number, weekday } from "@/words";
import type { Sheet } from "./sheet";

interface Props {
  athlete: string;
  sheet: Sheet;
  answer: Schemas["Written"];
}

/** The session on paper: large enough to read from the floor, a box for each set. */
export function PrintSheet({ athlete, sheet, answer }: Props) {
  const parts = new Map(answer.lines.map((one) => [one.line, one.sets]));
  const lines = sheet.text
    .split("\n")
    .map((text, at) => ({ text: text.trimEnd(), sets: parts.get(at + 1) ?? 0, at }));
  return (
    <section aria-label="Session on paper" className="session-sheet hidden print:block">
      <h1>
        {athlete}: {sheet.title || "Session"}
      </h1>
      <p className="head">
        {weekday(sheet.date)}, {date(sheet.date)} · about {number(answer.minutes, 0)} min ·{" "}
        {answer.sets} sets
      </p>
      <ol>
        {lines
          .filter((one) => one.text.trim() && !one.text.trimStart().startsWith("#"))
          .map((one) => (
            <li
              key={one.at}
              className={
                one.sets === 0
                  ? "part"
                  : one.text.startsWith(" ") || one.text.startsWith("\t")
                    ? "inside"
                    : ""
              }
            >
              <span>{one.text.trim()}</span>
              {one.sets > 0 && (
                <span className="boxes">
                  {Array.from({ length: Math.min(one.sets, 12) }, (_, box) => (
                    <span key={box} className="box" />
                  ))}
                </span>
              )}
            </li>
          ))}
      </ol>
      <p className="foot">
        Exertion (0 to 10): <span className="box wide" /> Minutes: <span className="box wide" />{" "}
        Stop on sharp pain, chest pain, dizziness or numbness, and see a doctor. Form before load.
      </p>
    </section>
  );
}
