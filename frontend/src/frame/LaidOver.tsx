import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import type { DialogProps } from "./DialogSheet";

/** What `DialogSheet` lays over the place. */
export function LaidOver({ title, close, wide, scrolls, aside, children }: DialogProps) {
  const width = aside ? "max-w-2xl" : scrolls ? "max-w-4xl" : wide ? "max-w-3xl" : "max-w-xl";
  return (
    <Dialog open onClose={close} className="relative z-10">
      <div className="fixed inset-0 bg-ink/40" aria-hidden="true" />
      <div
        className={`fixed inset-0 grid ${aside ? "justify-items-end" : scrolls ? "place-items-center p-6" : "place-items-center overflow-auto p-4"}`}
      >
        {scrolls === undefined ? (
          <DialogPanel className={`w-full border border-rule bg-sheet px-7 py-5 ${width}`}>
            <DialogTitle className="double-rule mb-3 pb-2 text-xl font-semibold">
              {title}
            </DialogTitle>
            {children}
          </DialogPanel>
        ) : (
          <DialogPanel
            className={`flex w-full flex-col bg-sheet ${aside ? "h-dvh border-l" : "max-h-full border"} border-rule ${width}`}
          >
            <div className="flex items-baseline border-b border-rule px-6 py-3">
              <DialogTitle className="text-xl font-semibold">{title}</DialogTitle>
              <button type="button" onClick={close} className="key-button ml-auto">
                Close
              </button>
            </div>
            {/* It scrolls and holds nothing to focus: the keyboard needs a hold of it. */}
            <div
              role="region"
              aria-label={scrolls}
              // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
              tabIndex={0}
              className="min-h-0 flex-1 overflow-auto px-6 py-4"
            >
              {children}
            </div>
          </DialogPanel>
        )}
      </div>
    </Dialog>
  );
}
