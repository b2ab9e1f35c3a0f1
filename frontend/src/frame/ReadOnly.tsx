import type { ReactNode } from "react";
import { Link } from "react-router";
import { useMay } from "@/api/me";

interface Props {
  /** Who changes what stands here, and what that is: "Coaches change the kit." */
  says: string;
  children: ReactNode;
}

/** What everybody reads and only coaches change: for others it says so, and its fields stay shut. */
export function ReadOnly({ says, children }: Props) {
  if (useMay("plan")) return children;
  return (
    <>
      <p role="note" className="mb-3 border-l-4 border-rule pl-3 text-ink-2">
        {says} You can read it here; the{" "}
        <Link to="/journal" className="trail-link">
          journal
        </Link>{" "}
        says what was changed.
      </p>
      <fieldset disabled className="contents">
        {children}
      </fieldset>
    </>
  );
}
