import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import Markdown from "react-markdown";
import remarkGfm from "remark-gfm";
import page from "../../../../docs/notation.md?raw";

/** The page on the notation, the same that the documentation has. */
export function NotationHelp({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} onClose={close} className="relative z-10">
      <div className="fixed inset-0 bg-ink/40" aria-hidden="true" />
      <div className="fixed inset-0 grid justify-items-end">
        <DialogPanel className="flex h-dvh w-full max-w-2xl flex-col border-l border-rule bg-sheet">
          <div className="flex items-baseline border-b border-rule px-6 py-3">
            <DialogTitle className="text-xl font-semibold">Writing a session</DialogTitle>
            <button type="button" onClick={close} className="key-button ml-auto">
              Close
            </button>
          </div>
          {/* It scrolls and holds nothing to focus: the keyboard needs a hold of it. */}
          <div
            role="region"
            aria-label="The notation by example"
            // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
            tabIndex={0}
            className="page min-h-0 flex-1 overflow-auto px-6 pb-8"
          >
            <Markdown remarkPlugins={[remarkGfm]} components={{ h1: () => null }}>
              {page}
            </Markdown>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
