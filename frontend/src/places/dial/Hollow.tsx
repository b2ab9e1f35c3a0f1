import type { Step } from "./proposed";

/** A step of the proposal at the line that it changes, hollow until it is taken. */
export function Hollow({ step, take }: { step: Step; take: () => void }) {
  const says =
    step.line === null ? `new, ${step.count_to}` : `${step.count_from} → ${step.count_to}`;
  return (
    <button
      type="button"
      className="ml-2 min-h-6 shrink-0 border border-dashed border-ink-2 px-1.5 text-sm hover:border-ink hover:bg-band"
      aria-label={`${says}: take it for ${step.movement}`}
      title={step.reason && `${step.reason}.`}
      onClick={take}
    >
      {says}
    </button>
  );
}
