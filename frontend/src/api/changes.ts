import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Refusal } from "./client";

/** A change of what is stored; everything shown is asked for anew. */
export function useChange<In, Out>(change: (input: In) => Promise<Out>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => queries.invalidateQueries(),
    onError: (problem) => {
      // Somebody else was first, or the answer was lost on the way: what is there now is shown.
      if (problem instanceof Refusal && [0, 409].includes(problem.status))
        void queries.invalidateQueries();
    },
  });
}

/** Work that stores nothing: nothing shown gets old by it. */
export function useLook<In, Out>(look: (input: In) => Promise<Out>) {
  return useMutation({ mutationFn: look });
}
