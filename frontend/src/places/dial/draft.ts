import type { Schemas } from "@/api/client";

export type Sessions = Schemas["DraftSession"][];
export type Line = Schemas["Line"];
export type Subject = Schemas["SubjectBody"];

export const WEEK: Subject = { kind: "week", name: "" };

/** The sessions with one line changed. */
export function withLine(
  sessions: Sessions,
  at: number,
  number: number,
  change: (line: Line) => Line,
): Sessions {
  return sessions.map((session, i) =>
    i === at
      ? { ...session, lines: session.lines.map((line, j) => (j === number ? change(line) : line)) }
      : session,
  );
}
