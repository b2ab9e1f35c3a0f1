import type { ReactNode } from "react";
import { type Right, useMay } from "@/api/me";

/** What only whoever has a right sees; the server refuses it to others all the same. */
export function May({ right, children }: { right: Right; children: ReactNode }) {
  return useMay(right) ? children : null;
}
