import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useChange } from "./changes";
import { type Schemas, client, given } from "./client";

export type Entry = Schemas["JournalLine"];

interface Wanted {
  athlete?: number;
  who?: string;
  words?: string;
  undoable?: boolean;
  before?: number;
}

/** Who changed what, the latest first. */
export function useJournal(wanted: Wanted) {
  return useQuery({
    queryKey: ["journal", wanted],
    queryFn: async () => given(await client.GET("/api/journal", { params: { query: wanted } })),
    placeholderData: keepPreviousData,
  });
}

/** What was done of an athlete's in the last thirty days and can be taken back, or was. */
export const useUndoable = (athlete: number) => useJournal({ athlete, undoable: true });

interface Swap {
  id: number;
  /** All of the change that the entry is part of. */
  whole?: boolean;
}

const at = ({ id, whole = false }: Swap) => ({
  params: { path: { entry: id }, query: { whole } },
});

/** Changes taken back, and made again. */
export const changes = {
  undo: async (swap: Swap) => given(await client.POST("/api/journal/{entry}/undo", at(swap))),
  redo: async (swap: Swap) => given(await client.POST("/api/journal/{entry}/redo", at(swap))),
};

/** Changes to be taken back or made again. */
export function useTakingBack() {
  const undo = useChange(changes.undo);
  const redo = useChange(changes.redo);
  return {
    /** Take an entry back, or make it again; what follows it comes when that is done. */
    swap: ({ id, undone }: { id: number; undone: boolean }, whole: boolean, done?: () => void) => {
      (undone ? undo : redo).reset();
      (undone ? redo : undo).mutate({ id, whole }, { onSuccess: done });
    },
    busy: undo.isPending || redo.isPending,
    error: undo.error ?? redo.error,
    /** What of the change could not go along, and why. */
    stays: (redo.isSuccess ? redo.data : undo.data)?.stays ?? [],
  };
}
