/** The sign of the house: a pointer turned back on its scale; on a phone alone, if not `whole`. */
export function Wordmark({ whole = false }: { whole?: boolean }) {
  return (
    <span className="inline-flex items-center gap-2 font-semibold tracking-tight whitespace-nowrap">
      <svg
        viewBox="0 0 26 18"
        width="26"
        height="18"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
      >
        <path d="M3 15a10 10 0 0 1 20 0" strokeWidth="1.5" />
        <path d="M13 15 6.700 6.500" strokeWidth="2.500" strokeLinecap="round" />
        <path d="M1 17h24" strokeWidth="1.5" />
      </svg>
      <span className={whole ? "" : "max-md:sr-only"}>Dial Back</span>
    </span>
  );
}
