import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";

interface Props {
  open: boolean;
  title: string;
  close: () => void;
  wide?: boolean;
  children: ReactNode;
}

/** A sheet laid over the place: it takes the keyboard until it is closed. */
export function DialogSheet({ open, title, close, wide = false, children }: Props) {
  return (
    <Dialog open={open} onClose={close} className="relative z-10">
      <div className="fixed inset-0 bg-ink/40" aria-hidden="true" />
      <div className="fixed inset-0 grid place-items-center overflow-auto p-4">
        <DialogPanel
          className={`w-full border border-rule bg-sheet px-7 py-5 ${wide ? "max-w-3xl" : "max-w-xl"}`}
        >
          <DialogTitle className="double-rule mb-3 pb-2 text-xl font-semibold">{title}</DialogTitle>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
