import type { Level } from "@/api/client";

const COLOURS: Record<Level, string> = {
  high: "text-high",
  caution: "text-caution",
  note: "text-note",
};

/** Plates on a sleeve: one hollow for a note, two for a caution, three tall for high. */
export function LevelMark({ level, struck = false }: { level: Level; struck?: boolean }) {
  return (
    <svg
      viewBox="0 0 24 14"
      width="24"
      height="14"
      role="img"
      aria-label={struck ? `${level}, accepted` : level}
      className={`shrink-0 ${COLOURS[level]}`}
    >
      <path d="M1 7h22" stroke="currentColor" />
      {level === "note" && (
        <rect x="10" y="3" width="4" height="8" fill="var(--sheet)" stroke="currentColor" />
      )}
      {level === "caution" &&
        [7.5, 13].map((x) => (
          <rect key={x} x={x} y="2" width="3.5" height="10" fill="currentColor" />
        ))}
      {level === "high" &&
        [4.5, 10, 15.5].map((x) => (
          <rect key={x} x={x} y="0" width="4" height="14" fill="currentColor" />
        ))}
      {struck && <path d="M2 13 22 1" stroke="var(--ink)" strokeWidth="1.75" />}
    </svg>
  );
}
