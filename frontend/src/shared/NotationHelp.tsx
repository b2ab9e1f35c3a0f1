import { Suspense, lazy } from "react";
import { DialogSheet } from "@/frame/DialogSheet";

const Page = lazy(async () => ({ default: (await import("./NotationPage")).NotationPage }));

/** The page on the notation, the same that the documentation has. */
export function NotationHelp({ open, close }: { open: boolean; close: () => void }) {
  return (
    <DialogSheet
      open={open}
      close={close}
      title="Writing a session"
      scrolls="The notation by example"
      aside
    >
      <Suspense fallback={<p className="text-ink-2">Loading…</p>}>
        <Page />
      </Suspense>
    </DialogSheet>
  );
}
