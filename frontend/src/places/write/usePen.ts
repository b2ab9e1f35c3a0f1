import { useEffect, useRef, useState } from "react";

/**
 * Whether one writes on a sheet, or letters are keys. One writes until one says otherwise; whoever
 * takes up a field again, or presses Enter on the sheet, writes again.
 */
export function usePen(write: () => void) {
  const [pen, setPen] = useState(true);
  const paper = useRef<HTMLElement>(null);
  useEffect(() => {
    const sheet = paper.current;
    if (!sheet) return undefined;
    const taken = (event: FocusEvent) => {
      if (event.target !== sheet) setPen(true);
    };
    const entered = (event: KeyboardEvent) => {
      if (event.target !== sheet || event.key !== "Enter") return;
      event.preventDefault();
      setPen(true);
      write();
    };
    sheet.addEventListener("focusin", taken);
    sheet.addEventListener("keydown", entered);
    return () => {
      sheet.removeEventListener("focusin", taken);
      sheet.removeEventListener("keydown", entered);
    };
  }, [write]);
  const putDown = () => {
    setPen(false);
    paper.current?.focus();
  };
  return { pen, paper, putDown };
}
