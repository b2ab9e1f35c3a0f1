import type { Finding, Sheet } from "./open";

/** Where one stands in the verdict: at a cause, or at a finding. */
export interface Stop {
  cause: number | null;
  finding: number | null;
}

/** The stops from top to bottom; what follows from a cause only where it is unfolded. */
export function stopsOf(sheet: Sheet, unfolded: number | null): Stop[] {
  const caused = new Set(sheet.causes.flatMap((one) => one.findings));
  const stops: Stop[] = sheet.causes.flatMap((cause, at) => [
    { cause: at, finding: null },
    ...(at === unfolded && cause.findings.length > 1
      ? cause.findings.map((finding) => ({ cause: at, finding }))
      : []),
  ]);
  const alone = sheet.findings.flatMap((_, at) =>
    caused.has(at) ? [] : [{ cause: null, finding: at }],
  );
  return [...stops, ...alone];
}

/** The next stop, or the one before; round at the ends. */
export function step(stops: Stop[], now: Stop, by: 1 | -1): Stop | undefined {
  const at = stops.findIndex((one) => one.cause === now.cause && one.finding === now.finding);
  if (at < 0) return by > 0 ? stops[0] : stops.at(-1);
  return stops[(at + by + stops.length) % stops.length];
}

export const keyOf = (one: Pick<Finding, "code" | "subject" | "measure">) =>
  `${one.code}/${one.subject}/${one.measure}`;
export const causeKey = (one: { code: string; subject: string }) => `${one.code}/${one.subject}`;
