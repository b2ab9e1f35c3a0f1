import { type RefObject, useEffect } from "react";
import { type Placed, dragged, moved } from "./rows";

interface Rows {
  rows: Placed[] | null;
  /** The row that is being dragged. */
  held: number | null;
  hold: (id: number | null) => void;
  arrange: (rows: Placed[]) => void;
  undo: () => void;
  line: (line: number) => void;
}

/** One ear for all rows: the rows themselves are no controls, their fields are. */
export function useRowKeys(
  host: RefObject<HTMLElement | null>,
  { rows, held, hold, arrange, undo, line }: Rows,
) {
  useEffect(() => {
    const list = host.current;
    if (!list || !rows) return undefined;
    const index = (target: EventTarget | null) => {
      const id = Number(
        (target as HTMLElement | null)?.closest<HTMLElement>("[data-row]")?.dataset.row,
      );
      return rows.findIndex((one) => one.id === id);
    };
    const keys = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key === "z") {
        event.preventDefault();
        undo();
      } else if (event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
        event.preventDefault();
        arrange(moved(rows, index(event.target), event.key === "ArrowUp" ? -1 : 1));
      }
    };
    const over = (event: DragEvent) => held !== null && event.preventDefault();
    const drop = (event: DragEvent) => {
      const onto = index(event.target);
      const from = rows.findIndex((one) => one.id === held);
      if (from >= 0 && onto >= 0) arrange(dragged(rows, from, onto));
      hold(null);
    };
    const focus = (event: FocusEvent) => line(index(event.target) + 1);
    list.addEventListener("keydown", keys);
    list.addEventListener("dragover", over);
    list.addEventListener("drop", drop);
    list.addEventListener("focusin", focus);
    return () => {
      list.removeEventListener("keydown", keys);
      list.removeEventListener("dragover", over);
      list.removeEventListener("drop", drop);
      list.removeEventListener("focusin", focus);
    };
  }, [host, rows, held, hold, arrange, undo, line]);
}
