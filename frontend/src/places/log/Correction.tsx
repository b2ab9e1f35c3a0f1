import { useState } from "react";
import type { Line } from "./log";

interface Props {
  line: Line;
  number: number;
  amend: (text: string) => Promise<boolean>;
}

/** What was done, in a few words; Enter takes it. */
export function Correction({ line, number, amend }: Props) {
  const [typed, setTyped] = useState("");
  const shown = line.kind === "as planned" ? "" : line.done;
  return (
    <input
      value={typed}
      placeholder={shown || "as planned"}
      aria-label={`Set ${number} of the session, ${line.movement}: done`}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={async () => {
        // What was not understood stays, to be put right.
        if (typed.trim() && (await amend(typed))) setTyped("");
      }}
      onKeyDown={(event) => {
        if (event.key !== "Enter") return;
        event.preventDefault();
        const fields = [
          ...document.querySelectorAll<HTMLInputElement>("input[aria-label$=': done']"),
        ];
        fields[fields.indexOf(event.currentTarget) + 1]?.focus();
        if (!typed.trim()) return;
        event.currentTarget.blur();
      }}
      className={`my-px h-5.5 w-full min-w-0 bg-paper px-1.5 ${shown ? "placeholder:text-ink" : "placeholder:text-ink-2"}`}
    />
  );
}
