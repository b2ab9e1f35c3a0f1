import { type ReactNode, Suspense, lazy } from "react";

export interface DialogProps {
  open: boolean;
  title: string;
  close: () => void;
  wide?: boolean;
  /** The label of what scrolls within the sheet, where its head with a Close stays in sight. */
  scrolls?: string;
  /** Along the right edge, from top to bottom. */
  aside?: boolean;
  children: ReactNode;
}

// Fetched when the first one opens: no page begins with a dialog.
const LaidOver = lazy(async () => ({ default: (await import("./LaidOver")).LaidOver }));

/** A sheet laid over the place: it takes the keyboard until it is closed. */
export function DialogSheet(props: DialogProps) {
  return (
    props.open && (
      <Suspense fallback={null}>
        <LaidOver {...props} />
      </Suspense>
    )
  );
}
