import { useState } from "react";
import { PrintDialog } from "./PrintDialog";
import { KEYS, useKeys } from "./keys";

interface Props {
  athlete?: { id: number; name: string };
  shown?: number[];
  className: string;
}

/** The way to paper, from wherever one is. */
export function PrintButton({ athlete, shown, className }: Props) {
  const [open, setOpen] = useState(false);
  useKeys({ print: () => setOpen(true) });
  return (
    <>
      <button
        type="button"
        className={`no-print ${className}`}
        title={`Key ${KEYS.print.key}`}
        onClick={() => setOpen(true)}
      >
        Print
      </button>
      {open && <PrintDialog open close={() => setOpen(false)} athlete={athlete} shown={shown} />}
    </>
  );
}

/** The same by its key alone, in places that have no button for it. */
export function PrintKey() {
  const [open, setOpen] = useState(false);
  useKeys({ print: () => setOpen(true) });
  return open && <PrintDialog open close={() => setOpen(false)} />;
}
