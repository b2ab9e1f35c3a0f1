import type { ReactNode } from "react";

interface Props {
  act: () => void;
  label?: string;
  children: ReactNode;
}

/** A small thing to do beside a line. */
export function Small({ act, label, children }: Props) {
  return (
    <button
      type="button"
      aria-label={label}
      className="trail-link ml-2.5 min-h-6 min-w-6 text-sm font-normal text-ink-2"
      onClick={act}
    >
      {children}
    </button>
  );
}
