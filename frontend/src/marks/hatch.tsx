/** The hatching of estimates and assumptions; defined once, used by every drawing. */
export function Hatch() {
  return (
    <svg width="0" height="0" aria-hidden="true" className="absolute">
      <defs>
        <pattern
          id="hatch"
          width="4"
          height="4"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="4" height="4" fill="var(--sheet)" />
          <rect width="2" height="4" fill="var(--ink)" />
        </pattern>
      </defs>
    </svg>
  );
}

export const fill = (rough: boolean): string => (rough ? "url(#hatch)" : "var(--ink)");
