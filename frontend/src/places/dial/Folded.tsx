import type { ReactNode } from "react";

interface Props {
  label: string;
  title: string;
  /** Said beside the title. */
  beside: ReactNode;
  /** What opens it. */
  opens: string;
  keyName: string;
  open: boolean;
  toggle: () => void;
  error: string | null;
  children: ReactNode;
}

/** A part of the desk that is asked for: its head, what went wrong, and what was found. */
export function Folded({
  label,
  title,
  beside,
  opens,
  keyName,
  open,
  toggle,
  error,
  children,
}: Props) {
  return (
    <section aria-label={label} className="mb-3 border-b border-rule pt-2 pb-3">
      <div className="flex items-baseline gap-3">
        <h2 className="font-semibold">{title}</h2>
        {beside}
        <button
          type="button"
          className="key-button ml-auto"
          aria-expanded={open}
          onClick={toggle}
          title={`Key ${keyName}`}
        >
          {open ? "Close" : opens}
        </button>
      </div>
      {error && (
        <p role="alert" className="mt-1 text-sm text-high">
          {error}
        </p>
      )}
      {open && children}
    </section>
  );
}
