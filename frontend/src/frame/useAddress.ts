import { useCallback, useState } from "react";
import { useSearchParams } from "react-router";

/** What is looked for, as the address says it: it outlives going away, a reload and a link sent. */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  const put = useCallback(
    (part: Record<string, string>) =>
      setParams(
        (now) => {
          const next = new URLSearchParams(now);
          for (const [name, value] of Object.entries(part))
            if (value) next.set(name, value);
            else next.delete(name);
          return next;
        },
        { replace: true },
      ),
    [setParams],
  );
  const clear = useCallback(() => setParams({}, { replace: true }), [setParams]);
  return { params, put, clear };
}

/**
 * What is typed to find something. The field holds it, for an address comes too late for whoever
 * types fast; the address keeps it.
 */
export function useTyped(name: string) {
  const { params, put } = useAddress();
  const [text, setText] = useState(() => params.get(name) ?? "");
  const type = useCallback(
    (value: string) => {
      setText(value);
      put({ [name]: value });
    },
    [name, put],
  );
  return [text, type] as const;
}
