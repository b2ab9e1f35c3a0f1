import { useEffect, useState } from "react";
import { typed } from "@/api/typed";

/**
 * Words typed into a small form. If the session ends meanwhile, they stand there again when the same
 * person opens the form anew.
 *
 * @param name The field's own name on its page.
 */
export function useTyped(name: string, first = ""): [string, (text: string) => void] {
  const [field] = useState(`${location.pathname}/${name}`);
  const [text, setText] = useState(() => typed.waiting(field) ?? first);
  useEffect(() => {
    typed.note(field, text);
    return () => void typed.gone(field);
  }, [field, text]);
  return [text, setText];
}
